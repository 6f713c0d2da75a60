/** Tags that programs and people write into recordings, taken out or blanked; what is heard and seen stays byte by byte. */

/** ID3v2 at the start (id3.org, 2.4.0, section 3.1), ID3v1 and APEv2 at the end. */
export function stripMp3(bytes: Buffer): Buffer {
  let from = 0
  while (bytes.subarray(from, from + 3).toString('latin1') === 'ID3' && from + 10 <= bytes.length) {
    const size = [6, 7, 8, 9].reduce((sum, n) => sum * 128 + (bytes[from + n]! & 0x7f), 0) // seven bits of each
    from += 10 + size + (bytes[from + 5]! & 0x10 ? 10 : 0)
  }
  let to = bytes.length
  if (bytes.subarray(to - 128, to - 125).toString('latin1') === 'TAG') to -= 128
  if (bytes.subarray(to - 32, to - 24).toString('latin1') === 'APETAGEX') {
    const size = bytes.readUInt32LE(to - 20)
    const hasHeader = (bytes.readUInt32LE(to - 12) & 0x80000000) !== 0
    to -= size + (hasHeader ? 32 : 0)
  }
  return bytes.subarray(Math.min(from, bytes.length), Math.max(from, to))
}

const WAVE_PARTS = new Set(['fmt ', 'data', 'fact'])
/** What is not needed to play it goes: LIST with names and dates, bext, iXML, id3. Source: RIFF/WAVE, IBM and Microsoft 1991. */
export function stripWav(bytes: Buffer): Buffer {
  const kept: Buffer[] = []
  for (let at = 12; at + 8 <= bytes.length;) {
    const length = bytes.readUInt32LE(at + 4)
    const end = Math.min(bytes.length, at + 8 + length + (length % 2))
    if (WAVE_PARTS.has(bytes.subarray(at, at + 4).toString('latin1'))) kept.push(bytes.subarray(at, end))
    at = end
  }
  const body = Buffer.concat(kept)
  const head = Buffer.from(bytes.subarray(0, 12))
  head.writeUInt32LE(body.length + 4, 4)
  return Buffer.concat([head, body])
}

const MP4_FOLDERS = new Set(['moov', 'trak', 'mdia', 'minf', 'stbl', 'moof', 'traf', 'edts'])
const MP4_NOTES = new Set(['udta', 'meta', 'uuid'])
const DEEPEST = 12

/** Boxes of notes become free space of the same size, so that nothing moves. Source: ISO/IEC 14496-12, section 4.2. */
export function stripMp4(bytes: Buffer): Buffer {
  const out = Buffer.from(bytes)
  const walk = (from: number, to: number, depth: number) => {
    for (let at = from; at + 8 <= to;) {
      const type = out.subarray(at + 4, at + 8).toString('latin1')
      const { size, head } = boxSize(out, at, to)
      if (size < head || at + size > to) return
      if (MP4_NOTES.has(type)) {
        out.write('free', at + 4, 'latin1')
        out.fill(0, at + head, at + size)
      } else if (MP4_FOLDERS.has(type) && depth < DEEPEST) walk(at + head, at + size, depth + 1)
      else if (type === 'mvhd' || type === 'tkhd' || type === 'mdhd') blankTimes(out, at + head)
      else if (type === 'hdlr') out.fill(0, Math.min(at + head + 24, at + size), at + size) // name of the program
      at += size
    }
  }
  walk(0, out.length, 0)
  return out
}

function boxSize(bytes: Buffer, at: number, end: number): { size: number; head: number } {
  const size = bytes.readUInt32BE(at)
  if (size === 0) return { size: end - at, head: 8 } // to the end
  if (size !== 1) return { size, head: 8 }
  return at + 16 <= end ? { size: Number(bytes.readBigUInt64BE(at + 8)), head: 16 } : { size: 0, head: 16 }
}

/** When it was made and changed, after a version byte and flags. */
function blankTimes(bytes: Buffer, at: number): void {
  const length = bytes[at] === 1 ? 16 : 8
  bytes.fill(0, at + 4, Math.min(bytes.length, at + 4 + length))
}

const VOID = 0xec
const EBML_FOLDERS = new Set([0x18538067, 0x1549a966]) // Segment, Info
/** Tags, Attachments, Title, DateUTC, MuxingApp, WritingApp, SegmentFilename. Source: RFC 9559, section 5.1. */
const EBML_NOTES = new Set([0x1254c367, 0x1941a469, 0x7ba9, 0x4461, 0x7384])
const EBML_PROGRAMS = new Set([0x4d80, 0x5741]) // have to be there: blanked

/** Elements of notes become Void elements of the same size, so that nothing moves. Source: RFC 8794, section 11.3.2. */
export function stripWebm(bytes: Buffer): Buffer {
  const out = Buffer.from(bytes)
  const walk = (from: number, to: number) => {
    for (let at = from; at < to;) {
      const id = ebmlNumber(out, at, false)
      const size = id && ebmlNumber(out, at + id.length, true)
      if (!id || !size) return
      const body = at + id.length + size.length
      // a recording made as it goes does not know how long it will be
      const end = size.isUnknown ? to : Math.min(to, body + size.value)
      if (EBML_NOTES.has(id.value)) becomeVoid(out, at, end)
      else if (EBML_PROGRAMS.has(id.value)) out.fill(0x20, body, end)
      else if (EBML_FOLDERS.has(id.value)) walk(body, end)
      at = end
    }
  }
  walk(0, out.length)
  return out
}

function ebmlNumber(bytes: Buffer, at: number, isSize: boolean) {
  const first = bytes[at]
  if (!first) return null
  const length = Math.clz32(first) - 23 // zero bits before the first one say how many bytes follow
  if (length > 8 || at + length > bytes.length) return null
  let value = isSize ? first & (0xff >> length) : first
  let isUnknown = isSize && value === 0xff >> length
  for (let n = 1; n < length; n++) {
    value = value * 256 + bytes[at + n]!
    isUnknown &&= bytes[at + n] === 0xff
  }
  return { value, length, isUnknown }
}

/** One byte says that it is void, up to eight how long it is; the rest is zero. */
function becomeVoid(bytes: Buffer, from: number, to: number): void {
  const total = to - from
  bytes.fill(0, from, to)
  bytes[from] = VOID
  if (total < 10) {
    bytes[from + 1] = 0x80 | (total - 2)
    return
  }
  bytes[from + 1] = 0x01 // eight bytes of length
  bytes.writeUIntBE(total - 9, from + 3, 6)
}

const COMMENTS = [Buffer.from('\x03vorbis', 'latin1'), Buffer.from('OpusTags', 'latin1')]

/**
 * The text of a comment header is blanked in its place and the checksums of its pages are made anew. Sources: RFC 3533
 * (pages), RFC 7845 section 5.2 (Opus), Vorbis I section 5.
 */
export function stripOgg(bytes: Buffer): Buffer {
  const out = Buffer.from(bytes)
  const open = new Map<number, number[]>() // by stream: where the bytes of its comment header are
  for (const page of oggPages(out)) {
    let at = page.body
    for (const length of page.segments) {
      const known = open.get(page.stream)
      const begins = COMMENTS.some(magic => out.subarray(at, at + magic.length).equals(magic))
      if (known || begins) {
        const places = known ?? []
        for (let n = 0; n < length; n++) places.push(at + n)
        open.set(page.stream, places)
        if (length < 255) {
          blankComments(out, places)
          open.delete(page.stream)
        }
      }
      at += length
    }
  }
  for (const page of oggPages(out)) {
    out.writeUInt32LE(0, page.from + 22)
    out.writeUInt32LE(oggChecksum(out.subarray(page.from, page.to)), page.from + 22)
  }
  return out
}

function* oggPages(bytes: Buffer) {
  for (let at = 0; at + 27 <= bytes.length && bytes.subarray(at, at + 4).toString('latin1') === 'OggS';) {
    const count = bytes[at + 26]!
    const segments = [...bytes.subarray(at + 27, at + 27 + count)]
    const body = at + 27 + count
    const to = body + segments.reduce((sum, length) => sum + length, 0)
    if (to > bytes.length) return
    yield { from: at, body, to, segments, stream: bytes.readUInt32LE(at + 14) }
    at = to
  }
}

/** Lengths stay as they are; what they measure becomes spaces. @param places of a packet's bytes, which pages may divide */
function blankComments(bytes: Buffer, places: readonly number[]): void {
  const magic = COMMENTS.find(m => m.every((byte, n) => bytes[places[n] ?? -1] === byte))
  if (!magic) return
  let at = magic.length
  const number = () => {
    let value = 0
    for (let n = 3; n >= 0; n--) value = value * 256 + (bytes[places[at + n] ?? -1] ?? 0)
    at += 4
    return value
  }
  const blank = (length: number, begin = '') => {
    for (let n = 0; n < length && at < places.length; n++, at++)
      bytes[places[at]!] = (length >= begin.length && begin.charCodeAt(n)) || 0x20
  }
  blank(number()) // the program's name
  for (let left = number(); left > 0 && at < places.length; left--) blank(number(), 'X=')
}

const CHECKSUMS = Array.from({ length: 256 }, (_, n) => {
  let value = n << 24
  for (let bit = 0; bit < 8; bit++) value = value & 0x80000000 ? (value << 1) ^ 0x04c11db7 : value << 1
  return value >>> 0
})
/** CRC-32 with polynomial 0x04c11db7, nothing reflected, from zero (RFC 3533, section 6). */
function oggChecksum(page: Buffer): number {
  let value = 0
  for (const byte of page) value = ((value << 8) ^ CHECKSUMS[((value >>> 24) ^ byte) & 0xff]!) >>> 0
  return value
}
