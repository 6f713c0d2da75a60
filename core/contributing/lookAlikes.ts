import { seededRandom } from '../chance/seededRandom'
import { wordSegments } from '../language/segments'

/** A text as it is compared: quotations of others left out by the caller, passages of assigned readings named apart. */
export interface ComparedText {
  readonly id: string
  readonly text: string
}
export interface SharedPassage {
  readonly text: string
  readonly inFirst: number
  readonly inSecond: number
} // character offsets in the texts as given
export interface LookAlike {
  readonly first: string
  readonly second: string
  readonly ofFirst: number // 0..1: share of the first's shingles that the second has
  readonly ofSecond: number
  readonly passages: readonly SharedPassage[]
}

const SHINGLE = 5 // words
const BANDS = 64
const ROWS = 1 // of each band: two texts that share a fifth of all their shingles are met but for one time in a million
const SEED = 1688

/**
 * Pairs of texts that repeat each other's wording: 5-word shingles over normalised text, MinHash with banded LSH for
 * candidates, then exact containment both ways with the passages they share. Shingles that stand in an assigned reading
 * count for nothing.
 * Sources: Broder, "On the resemblance and containment of documents" (1997); Leskovec, Rajaraman, Ullman, *Mining of
 * Massive Datasets*, ch. 3. The candidates are probabilistic: a pair that shares less than a tenth may be missed.
 *
 * @param options.least smallest containment, in either direction, that is reported
 * @returns pairs, the closest first; each pair once, `first` before `second` in input order
 * @throws {RangeError} if `least` is not in 0..1
 */
export function lookAlikes(
  texts: readonly ComparedText[],
  options: { readonly least: number; readonly readings?: readonly string[] },
): LookAlike[] {
  if (!(options.least >= 0 && options.least <= 1))
    throw new RangeError('lookAlikes needs a share from 0 to 1')
  const known = new Set((options.readings ?? []).flatMap(r => shingles(wordsOf(r)).map(s => s.key)))
  const prepared = texts
    .map((t, order) => {
      const words = wordsOf(t.text)
      const list = shingles(words).filter(s => !known.has(s.key))
      return { id: t.id, order, text: t.text, words, list, keys: new Set(list.map(s => s.key)) }
    })
    .filter(t => t.keys.size > 0)
  const found: LookAlike[] = []
  for (const [a, b] of candidates(prepared)) {
    const shared = [...a.keys].reduce((n, key) => n + (b.keys.has(key) ? 1 : 0), 0)
    const [ofFirst, ofSecond] = [shared / a.keys.size, shared / b.keys.size]
    if (shared === 0 || Math.max(ofFirst, ofSecond) < options.least) continue
    found.push({ first: a.id, second: b.id, ofFirst, ofSecond, passages: passagesOf(a, b) })
  }
  return found.sort(
    (x, y) =>
      Math.max(y.ofFirst, y.ofSecond) - Math.max(x.ofFirst, x.ofSecond) || (x.first < y.first ? -1 : 1),
  )
}

interface Word {
  readonly text: string
  readonly from: number
  readonly to: number
}
interface Shingle {
  readonly key: string
  readonly at: number
} // at: index of its first word
interface Prepared {
  readonly id: string
  readonly order: number
  readonly text: string
  readonly words: readonly Word[]
  readonly list: readonly Shingle[]
  readonly keys: ReadonlySet<string>
}

/** Words in lower case without accents, with where they stand. */
function wordsOf(text: string): Word[] {
  const words: Word[] = []
  for (const { segment, index, isWordLike } of wordSegments(text)) {
    if (isWordLike)
      words.push({
        text: segment.toLowerCase().normalize('NFKD').replace(/\p{M}/gu, ''),
        from: index,
        to: index + segment.length,
      })
  }
  return words
}

const shingles = (words: readonly Word[]): Shingle[] =>
  Array.from({ length: Math.max(0, words.length - SHINGLE + 1) }, (_, at) => ({
    key: words
      .slice(at, at + SHINGLE)
      .map(w => w.text)
      .join(' '),
    at,
  }))

/** Pairs that agree in at least one band of their signatures. */
function candidates(texts: readonly Prepared[]): Array<readonly [Prepared, Prepared]> {
  const random = seededRandom(SEED)
  const salts = Array.from({ length: BANDS * ROWS }, () => Math.floor(random() * 2 ** 32))
  const buckets = new Map<string, Prepared[]>()
  for (const text of texts) {
    const signature = new Uint32Array(salts.length).fill(0xffffffff)
    for (const key of text.keys) {
      const base = hash(key)
      for (let i = 0; i < salts.length; i++) signature[i] = Math.min(signature[i]!, mix(base ^ salts[i]!))
    }
    for (let band = 0; band < BANDS; band++) {
      const bucket = `${band}:${signature.slice(band * ROWS, (band + 1) * ROWS).join(',')}`
      const others = buckets.get(bucket)
      if (others) others.push(text)
      else buckets.set(bucket, [text])
    }
  }
  const pairs = new Map<string, readonly [Prepared, Prepared]>()
  for (const bucket of buckets.values()) {
    for (let i = 0; i < bucket.length; i++)
      for (let j = i + 1; j < bucket.length; j++) {
        const [a, b] =
          bucket[i]!.order < bucket[j]!.order ? [bucket[i]!, bucket[j]!] : [bucket[j]!, bucket[i]!]
        pairs.set(`${a.order}:${b.order}`, [a, b])
      }
  }
  return [...pairs.values()]
}

/** FNV-1a, 32 bits. */
function hash(text: string): number {
  let h = 0x811c9dc5
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193)
  return h >>> 0
}
/** The finaliser of MurmurHash3: every bit of the input moves every bit of the output. */
function mix(x: number): number {
  let h = x >>> 0
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return (h ^ (h >>> 16)) >>> 0
}

/** Runs of words both have, as long as they go, in the order of the first; each word of the first in one run at most. */
function passagesOf(a: Prepared, b: Prepared): SharedPassage[] {
  const positions = new Map<string, number[]>()
  for (const s of b.list) positions.set(s.key, [...(positions.get(s.key) ?? []), s.at])
  const passages: SharedPassage[] = []
  let free = 0 // first word of the first that no passage has yet
  for (const s of a.list) {
    if (s.at < free) continue
    let best = { length: 0, at: 0 }
    for (const at of positions.get(s.key) ?? []) {
      let length = SHINGLE
      while (
        a.words[s.at + length] &&
        b.words[at + length] &&
        a.words[s.at + length]!.text === b.words[at + length]!.text
      )
        length++
      if (length > best.length) best = { length, at }
    }
    if (best.length === 0) continue
    const [first, last] = [a.words[s.at]!, a.words[s.at + best.length - 1]!]
    passages.push({
      text: a.text.slice(first.from, last.to),
      inFirst: first.from,
      inSecond: b.words[best.at]!.from,
    })
    free = s.at + best.length
  }
  return passages
}
