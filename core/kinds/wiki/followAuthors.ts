import { comparePages, type Comparison } from './comparePages'
import type { PageReader, PageText } from './pageText'

/** So many origins of tokens in a row: a version's id, and how many tokens it goes for. */
export type Runs = ReadonlyArray<readonly [origin: string, tokens: number]>
/** Words that were taken out of a page, and where they had come from. Kept, so that they are known when they come back. */
export interface GoneRun {
  readonly words: readonly string[]
  readonly runs: Runs
} // tokens by their text

/** A version's text with the origin of each of its tokens. */
export interface Credited {
  readonly runs: Runs
  readonly gone: readonly GoneRun[] // what this version took out
  readonly written: number // words that are new in it: neither kept nor brought back
  readonly removed: number // words it took out
}

const RUN_WORDS = 4 // words in a row by which gone text is known again
const RUN_TOKENS = 2 * RUN_WORDS - 1
const LEAST_TOKENS = 3 // two words: as short as a run is kept, and then known again only as a whole
const MOST_PLACES = 8 // at which the same few words are remembered

/**
 * Whose words stand in a new version. Words that stay keep their origin, also in a block that moved; words that come back
 * (a version restored, a passage cut and pasted later, also from another page) get the origin they had; all others are
 * this version's own. Walks over the text once; what is gone is looked up by its first few words.
 *
 * @param before the version before with its origins; null for a first version
 * @param gone what earlier versions took out, and what stands on other pages
 * @param own what this version is called as an origin
 */
export function followAuthors(
  before: { readonly text: PageText; readonly runs: Runs } | null,
  next: PageText,
  gone: GoneWords,
  own: string,
  comparison?: Comparison,
): Credited {
  const earlier = before ? spread(before.runs, before.text.tokens.length) : []
  const { from } = before
    ? (comparison ?? comparePages(before.text, next))
    : { from: new Int32Array(next.tokens.length).fill(-1) }
  const origins = Array.from(from, i => (i < 0 ? null : earlier[i]!))
  gone.bringBack(next, origins)
  let written = 0
  next.tokens.forEach((t, j) => {
    if (origins[j] === null && t.kind === 'word') written++
  })
  const removed = before ? goneRuns(before.text, earlier, from) : { runs: [], words: 0 }
  return { runs: gather(origins.map(o => o ?? own)), gone: removed.runs, written, removed: removed.words }
}

/** Origins token by token. */
export function spread(runs: Runs, length: number): string[] {
  const all: string[] = []
  for (const [origin, count] of runs) for (let k = 0; k < count; k++) all.push(origin)
  if (all.length !== length) throw new RangeError(`${all.length} origins for ${length} tokens`)
  return all
}

function gather(origins: readonly string[]): Runs {
  const runs: Array<[string, number]> = []
  for (const origin of origins) {
    const last = runs.at(-1)
    if (last?.[0] === origin) last[1]++
    else runs.push([origin, 1])
  }
  return runs
}

/** Gone words, findable by how they begin. Grows with the history of a page, and is read by every version. */
export class GoneWords {
  private readonly texts: Array<{ readonly ids: Int32Array; readonly origins: readonly string[] }> = []
  private readonly starts = new Map<number, Array<readonly [number, number]>>() // by a number made of a few tokens: text and place

  constructor(
    private readonly reader: PageReader,
    runs: readonly GoneRun[] = [],
  ) {
    this.add(runs)
  }

  add(runs: readonly GoneRun[]): void {
    for (const run of runs) {
      const ids = Int32Array.from(run.words, w => this.reader.plain(w))
      const length = Math.min(RUN_TOKENS, ids.length)
      for (let i = 0; i + length <= ids.length; i++)
        if (length === RUN_TOKENS || i === 0) this.note(keyOf(ids, i, length), this.texts.length, i)
      this.texts.push({ ids, origins: spread(run.runs, run.words.length) })
    }
  }

  /** Gives tokens without an origin the one they had when they were taken out. */
  bringBack({ tokens, ids }: PageText, origins: Array<string | null>): void {
    if (this.texts.length === 0) return
    for (let j = 0; j < ids.length; j++) {
      if (origins[j] !== null || tokens[j]!.kind !== 'word') continue
      let end = j
      while (end < ids.length && origins[end] === null && tokens[end]!.kind !== 'block') end++
      const hit = this.longest(ids, j, end)
      if (!hit) continue
      const [text, i, length] = hit
      for (let k = 0; k < length; k++) origins[j + k] = this.texts[text]!.origins[i + k]!
      j += length - 1
    }
  }

  private note(key: number, text: number, at: number) {
    const list = this.starts.get(key)
    if (!list) this.starts.set(key, [[text, at]])
    else if (list.length < MOST_PLACES) list.push([text, at])
  }

  /** The longest stretch of gone text that begins at a token; a whole gone run may be shorter than a few words. */
  private longest(ids: Int32Array, j: number, end: number): readonly [number, number, number] | null {
    let best: readonly [number, number, number] | null = null
    for (let length = LEAST_TOKENS; length <= RUN_TOKENS && j + length <= end; length++) {
      for (const [text, i] of this.starts.get(keyOf(ids, j, length)) ?? []) {
        const gone = this.texts[text]!.ids
        let same = 0
        while (i + same < gone.length && j + same < end && gone[i + same] === ids[j + same]) same++
        if ((same >= RUN_TOKENS || (i === 0 && same === gone.length)) && same > (best?.[2] ?? 0))
          best = [text, i, same]
      }
    }
    return best
  }
}

function keyOf(ids: Int32Array, at: number, length: number): number {
  let key = length
  for (let k = 0; k < length; k++) key = (Math.imul(key, 0x9e3779b1) + ids[at + k]! + 1) | 0
  return key
}

/** What a version took out, run by run within blocks, and how many words that are. */
function goneRuns(
  text: PageText,
  origins: readonly string[],
  from: Int32Array,
): { runs: GoneRun[]; words: number } {
  const used = new Uint8Array(text.tokens.length)
  from.forEach(i => {
    if (i >= 0) used[i] = 1
  })
  return runsOf(text, origins, i => !used[i])
}

/**
 * A whole text as runs, block by block: what other pages' words are known by. Short blocks are left out: what stands in a
 * cell or a heading of one page is written anew on another.
 */
export const asGone = (text: PageText, runs: Runs): GoneRun[] =>
  runsOf(text, spread(runs, text.tokens.length), () => true).runs.filter(r => r.words.length >= RUN_TOKENS)

function runsOf(
  { tokens }: PageText,
  origins: readonly string[],
  is: (i: number) => boolean,
): { runs: GoneRun[]; words: number } {
  const runs: GoneRun[] = []
  let words = 0
  for (let i = 0; i < tokens.length; i++) {
    if (!is(i) || tokens[i]!.kind !== 'word') continue
    let end = i
    while (end < tokens.length && is(end) && (tokens[end]!.kind === 'word' || tokens[end]!.kind === 'gap'))
      end++
    if (tokens[end - 1]!.kind === 'gap') end--
    const own = tokens.slice(i, end)
    words += own.filter(t => t.kind === 'word').length
    if (own.length >= LEAST_TOKENS)
      runs.push({ words: own.map(t => t.text), runs: gather(origins.slice(i, end)) })
    i = end
  }
  return { runs, words }
}

/** Words that stand, by origin. */
export function standingWords(text: PageText, runs: Runs): Map<string, number> {
  const count = new Map<string, number>()
  let at = 0
  for (const [origin, length] of runs) {
    for (let k = at; k < at + length; k++)
      if (text.tokens[k]!.kind === 'word') count.set(origin, (count.get(origin) ?? 0) + 1)
    at += length
  }
  return count
}
