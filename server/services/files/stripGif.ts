const COMMENT = 0xfe
const APPLICATION = 0xff
const REPEATS = ['NETSCAPE2.0', 'ANIMEXTS1.0'] // how often it plays

/** Comments and programs' notes go; pictures, their timing and how often it plays stay. Source: GIF89a, appendix A. */
export function stripGif(bytes: Buffer): Buffer {
  const kept: Buffer[] = []
  let at = 13 + tableSize(bytes[10] ?? 0)
  kept.push(bytes.subarray(0, at))
  while (at < bytes.length) {
    const from = at
    const kind = bytes[at]
    if (kind === 0x2c) at = afterBlocks(bytes, at + 11 + tableSize(bytes[at + 9] ?? 0))
    else if (kind === 0x21) at = afterBlocks(bytes, at + 2)
    else {
      kept.push(bytes.subarray(at))
      break
    }
    if (!(kind === 0x21 && isNote(bytes, from))) kept.push(bytes.subarray(from, at))
  }
  return Buffer.concat(kept)
}

const tableSize = (flags: number): number => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0)

/** Behind blocks of up to 255 bytes, the last of which is empty. */
function afterBlocks(bytes: Buffer, from: number): number {
  let at = from
  while (at < bytes.length && bytes[at] !== 0) at += bytes[at]! + 1
  return Math.min(bytes.length, at + 1)
}

function isNote(bytes: Buffer, at: number): boolean {
  if (bytes[at + 1] === COMMENT) return true
  return (
    bytes[at + 1] === APPLICATION && !REPEATS.includes(bytes.subarray(at + 3, at + 14).toString('latin1'))
  )
}
