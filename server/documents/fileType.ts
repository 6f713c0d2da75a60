/** Media types by their first bytes: what a file is, not what it is called. Nothing a browser would run is among them. */
const SIGNATURES: ReadonlyArray<readonly [type: string, at: number, bytes: readonly number[]]> = [
  ['image/png', 0, [0x89, 0x50, 0x4e, 0x47]],
  ['image/jpeg', 0, [0xff, 0xd8, 0xff]],
  ['image/gif', 0, [0x47, 0x49, 0x46, 0x38]],
  ['image/webp', 8, [0x57, 0x45, 0x42, 0x50]],
  ['application/pdf', 0, [0x25, 0x50, 0x44, 0x46]],
  ['video/webm', 0, [0x1a, 0x45, 0xdf, 0xa3]],
  ['video/mp4', 4, [0x66, 0x74, 0x79, 0x70]],
  ['audio/mpeg', 0, [0x49, 0x44, 0x33]],
  ['audio/ogg', 0, [0x4f, 0x67, 0x67, 0x53]],
  ['audio/wav', 8, [0x57, 0x41, 0x56, 0x45]],
]

export function typeOf(bytes: Uint8Array, name: string): string | null {
  const known = SIGNATURES.find(([, at, signature]) => signature.every((b, i) => bytes[at + i] === b))?.[0]
  // one container holds pictures with sound, or sound alone: the name tells which
  if (known === 'video/webm' && /^(spoken|voice)|\.weba$/i.test(name)) return 'audio/webm'
  if (known === 'video/mp4' && /\.m4a$/i.test(name)) return 'audio/mp4'
  return known ?? null
}
