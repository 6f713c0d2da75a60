export interface DecodedText {
  readonly text: string
  readonly badLines: readonly number[] // lines whose bytes mix encodings and cannot be read safely, 1 for the first
}

/**
 * Text of a file whose encoding is not told. UTF-16 by its byte order mark, else UTF-8; a line that is not valid UTF-8
 * is read as Windows-1252 by itself, so that a file put together from two sources is still read right. A line that holds
 * both encodings cannot be told apart and is named instead.
 * Own rule; encodings by the WHATWG Encoding Standard.
 */
export function decodeText(bytes: Uint8Array): DecodedText {
  if (bytes[0] === 0xff && bytes[1] === 0xfe)
    return { text: new TextDecoder('utf-16le').decode(bytes), badLines: [] }
  if (bytes[0] === 0xfe && bytes[1] === 0xff)
    return { text: new TextDecoder('utf-16be').decode(bytes), badLines: [] }
  const whole = decodeUtf8(bytes)
  if (whole !== null) return { text: whole, badLines: [] }
  const badLines: number[] = []
  const lines = splitLines(bytes).map((line, i) => {
    const utf8 = decodeUtf8(line)
    if (utf8 !== null) return utf8
    const text = decodeWestern(line)
    // a lead byte of UTF-8 with its continuation, read as Windows-1252: two encodings in one line
    if (/[\u00c2-\u00df][\u0080-\u00bf\u20ac\u201a-\u2122]/.test(text)) badLines.push(i + 1)
    return text
  })
  return { text: lines.join('\n').replace(/^\ufeff/, ''), badLines }
}

/** 0x80 to 0x9F in Windows-1252; what is not assigned stays as it is (index windows-1252 of the Encoding Standard). */
const HIGH = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ'
/** Node's `TextDecoder` gives control characters for 0x80 to 0x9F, browsers' the letters. */
const decodeWestern = (bytes: Uint8Array): string =>
  new TextDecoder('windows-1252')
    .decode(bytes)
    .replace(/[\u0080-\u009f]/g, control => HIGH[control.charCodeAt(0) - 0x80]!)

function decodeUtf8(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes) // takes a byte order mark off
  } catch (error) {
    if (error instanceof TypeError) return null
    throw error
  }
}

function splitLines(bytes: Uint8Array): Uint8Array[] {
  const lines: Uint8Array[] = []
  let from = 0
  for (let at = bytes.indexOf(0x0a); at >= 0; at = bytes.indexOf(0x0a, from)) {
    lines.push(bytes.subarray(from, at))
    from = at + 1
  }
  lines.push(bytes.subarray(from))
  return lines
}
