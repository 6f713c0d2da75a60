/** A text as anchors see it, with where each of its characters came from in the source; one place more for the end. */
export interface ReadableText {
  readonly text: string
  readonly toSource: Int32Array
}

/** Letters that programs draw as one sign though they are several. */
const LIGATURES: Readonly<Record<string, string>> = {
  ﬀ: 'ff',
  ﬁ: 'fi',
  ﬂ: 'fl',
  ﬃ: 'ffi',
  ﬄ: 'ffl',
  ﬅ: 'st',
  ﬆ: 'st',
  ĳ: 'ij',
  Ĳ: 'IJ',
}
/** Signs that are there for the drawing alone: soft hyphens, joiners, marks of direction, of byte order. */
const UNSEEN = /[\u00ad\u200b-\u200f\u202a-\u202e\u2060\u2066-\u2069\ufeff]/
const SPACE = /[\s\u00a0\u0000]/

/**
 * The words of a text without what depends on how it is drawn: ligatures apart, signs without width left out, white space
 * of any kind and length one space, a word divided at the end of a line by a hyphen that is only there for that joined
 * again. So the same words chosen on a page, in its text layer or at another zoom are the same text (NFC is applied where
 * letters and their accents come apart).
 *
 * @example readableText('The har\u00adbour  of\nﬁsh').text => 'The harbour of fish'
 */
export function readableText(source: string): ReadableText {
  const parts: string[] = []
  const from: number[] = []
  const put = (text: string, at: number) => {
    parts.push(text)
    for (let k = 0; k < text.length; k++) from.push(at)
  }
  let last = ' ' // nothing begins with a space
  for (let i = 0; i < source.length;) {
    const sign = String.fromCodePoint(source.codePointAt(i)!)
    const end = i + sign.length
    if (UNSEEN.test(sign)) {
      i = end
      continue
    }
    if (SPACE.test(sign)) {
      if (last !== ' ') {
        put(' ', i)
        last = ' '
      }
      i = end
      continue
    }
    // a letter with the accents that follow it is one sign, however it is written
    let stop = end
    while (stop < source.length && /\p{M}/u.test(String.fromCodePoint(source.codePointAt(stop)!)))
      stop += String.fromCodePoint(source.codePointAt(stop)!).length
    const plain = LIGATURES[sign] ?? source.slice(i, stop).normalize('NFC')
    put(plain, i)
    last = plain
    i = stop
  }
  const text = parts.join('')
  const trimmed = text.endsWith(' ') ? text.length - 1 : text.length
  const toSource = Int32Array.from(from.slice(0, trimmed))
  return {
    text: text.slice(0, trimmed),
    toSource: Int32Array.from([...toSource, trimmed > 0 ? endOf(source, from, trimmed) : source.length]),
  }
}

/** Where the sign ends in the source that is the last of the text. */
function endOf(source: string, from: readonly number[], length: number): number {
  const at = from[length - 1]!
  let end = at + String.fromCodePoint(source.codePointAt(at)!).length
  while (end < source.length && /\p{M}/u.test(String.fromCodePoint(source.codePointAt(end)!))) end++
  return end
}
