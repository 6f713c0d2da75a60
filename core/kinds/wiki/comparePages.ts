import { alignTokens } from './alignTokens'
import { blockStarts, wordsIn, type PageText, type Token } from './pageText'

/** A block that stands elsewhere than before: ranges of tokens in the earlier and the later text. */
export interface MovedBlock {
  readonly a: readonly [number, number]
  readonly b: readonly [number, number]
}

/** What became of an earlier text in a later one. */
export interface Comparison {
  readonly from: Int32Array // for each token of the later text which of the earlier it is, −1 for a new one; each is at most one
  readonly moved: readonly MovedBlock[] // in the order of the later text
  readonly added: number // words
  readonly removed: number
  readonly wordsMoved: number
}

/** Shorter blocks than this many words are not told as moved: they are as likely alike by chance. */
const LEAST_MOVED = 5
/** A block counts as moved where this much of its words is gone here and new there … */
const MOSTLY = 0.7
/** … and where so much of it is the same. */
const ALIKE = 0.5
/** A few words that happen to stay between two replaced passages are replaced with them, so that changes read as they were made. */
const LONGEST_CHANCE = 2

/** Compares two texts that one reader has read. */
export function comparePages(a: PageText, b: PageText): Comparison {
  const from = alignTokens(a.ids, b.ids)
  joinChance(a.tokens, b.tokens, from)
  slideToStarts(a, b, from)
  const moved = findMoved(a, b, from)
  const used = new Uint8Array(a.tokens.length)
  let added = 0
  from.forEach((i, j) => {
    if (i >= 0) used[i] = 1
    else if (b.tokens[j]!.kind === 'word') added++
  })
  let removed = 0
  a.tokens.forEach((t, i) => {
    if (!used[i] && t.kind === 'word') removed++
  })
  return {
    from,
    moved,
    added,
    removed,
    wordsMoved: moved.reduce((sum, m) => sum + wordsIn(b.tokens, m.b[0], m.b[1]), 0),
  }
}

/** Takes kept tokens between two changes for changed where they are mere gaps, or a word or two between longer changes. */
function joinChance(a: readonly Token[], b: readonly Token[], from: Int32Array) {
  const runs = keptRuns(from, a.length)
  const cut = (k: number, side: 'before' | 'after') => {
    const [left, right] = side === 'before' ? [runs[k - 1], runs[k]] : [runs[k], runs[k + 1]]
    const [i0, j0] = left ? [left.a + left.length, left.b + left.length] : [0, 0]
    const [i1, j1] = right ? [right.a, right.b] : [a.length, b.length]
    return { words: wordsIn(a, i0, i1) + wordsIn(b, j0, j1), any: i1 > i0 || j1 > j0 }
  }
  for (let k = 0; k < runs.length; k++) {
    const run = runs[k]!
    if (run.length > 3 * LONGEST_CHANCE + 2) continue
    let words = 0
    let plain = true
    for (let j = run.b; j < run.b + run.length; j++) {
      if (b[j]!.kind === 'word') words++
      if (b[j]!.kind === 'block' || b[j]!.kind === 'atom') plain = false
    }
    if (!plain || words > LONGEST_CHANCE) continue
    const [before, after] = [cut(k, 'before'), cut(k, 'after')]
    if (!before.any || !after.any) continue
    if (
      words === 0
        ? before.words > 0 && after.words > 0
        : before.words >= 2 * words && after.words >= 2 * words && before.words + after.words >= 6 * words
    ) {
      for (let j = run.b; j < run.b + run.length; j++) from[j] = -1
      runs.splice(k, 1)
      k--
    }
  }
}

interface Run {
  readonly a: number
  readonly b: number
  readonly length: number
}

/** Runs of tokens that are kept side by side in both texts. */
function keptRuns(from: Int32Array, aLength: number): Run[] {
  const runs: Array<{ a: number; b: number; length: number }> = []
  from.forEach((i, j) => {
    if (i < 0 || i >= aLength) return
    const last = runs.at(-1)
    if (last && last.a + last.length === i && last.b + last.length === j) last.length++
    else runs.push({ a: i, b: j, length: 1 })
  })
  return runs
}

/**
 * Where the same words would be new one token earlier or later, the change is put where a block begins, else where a
 * sentence does, else a word: "a ¶b" and "a ¶x ¶b" differ by the block x, not by "x ¶".
 */
function slideToStarts(a: PageText, b: PageText, from: Int32Array) {
  slide(b, a.ids.length, from)
  const to = new Int32Array(a.ids.length).fill(-1)
  from.forEach((i, j) => {
    if (i >= 0) to[i] = j
  })
  slide(a, b.ids.length, to)
  from.fill(-1)
  to.forEach((j, i) => {
    if (j >= 0) from[j] = i
  })
}

const FARTHEST = 200 // tokens a change is slid

/** Slides runs of `y` that have no partner; `map` gives partners, in order. */
function slide(y: PageText, otherLength: number, map: Int32Array) {
  const n = y.ids.length
  for (let s = 0; s < n; s++) {
    if (map[s]! >= 0) continue
    let e = s
    while (e < n && map[e]! < 0) e++
    const before = s > 0 ? map[s - 1]! : -1
    const after = e < n ? map[e]! : otherLength
    // only where nothing of the other text stands at this place
    if (after !== before + 1) {
      s = e
      continue
    }
    let [left, right] = [0, 0]
    while (
      left < FARTHEST &&
      s - left > 0 &&
      map[s - left - 1]! === before - left &&
      before - left >= 0 &&
      y.ids[s - left - 1] === y.ids[e - left - 1]
    )
      left++
    while (
      right < FARTHEST &&
      e + right < n &&
      map[e + right]! === after + right &&
      y.ids[e + right] === y.ids[s + right]
    )
      right++
    let best = 0
    let bestScore = score(y.tokens, s)
    for (let d = -left; d <= right; d++) {
      const value = score(y.tokens, s + d)
      if (value > bestScore) {
        best = d
        bestScore = value
      }
    }
    if (best < 0)
      for (let k = 0; k < -best; k++) {
        map[e - 1 - k] = map[s - 1 - k]!
        map[s - 1 - k] = -1
      }
    if (best > 0)
      for (let k = 0; k < best; k++) {
        map[s + k] = map[e + k]!
        map[e + k] = -1
      }
    s = e + Math.max(0, best)
  }
}

function score(tokens: readonly Token[], at: number): number {
  const [token, before] = [tokens[at], tokens[at - 1]]
  if (token?.kind === 'block') return 4
  if (before?.kind === 'block') return 3
  if (token?.kind === 'gap' && before?.kind === 'gap' && /[.!?][”’")]?$/.test(before.text)) return 2
  return token?.kind === 'word' ? 1 : 0
}

/** Blocks that are gone in one place and new in another, mostly the same. Fills in what their words were. */
function findMoved(a: PageText, b: PageText, from: Int32Array): MovedBlock[] {
  const to = new Int32Array(a.tokens.length).fill(-1)
  from.forEach((i, j) => {
    if (i >= 0) to[i] = j
  })
  const gone = mostly(a, i => to[i]! < 0)
  const fresh = mostly(b, j => from[j]! < 0)
  if (gone.length === 0 || fresh.length === 0) return []
  const shingles = gone.map(range => shinglesOf(a, range))
  const holders = new Map<string, number[]>()
  shingles.forEach((set, g) => {
    for (const s of set) holders.set(s, [...(holders.get(s) ?? []), g])
  })
  const taken = new Set<number>()
  const moved: MovedBlock[] = []
  for (const range of fresh) {
    const own = shinglesOf(b, range)
    const shared = new Map<number, number>()
    for (const s of own) {
      const where = holders.get(s) ?? []
      if (where.length <= 50) for (const g of where) shared.set(g, (shared.get(g) ?? 0) + 1) // what stands everywhere tells nothing
    }
    let best = -1
    let most = ALIKE
    for (const [g, count] of shared) {
      const alike = (2 * count) / (own.size + shingles[g]!.size)
      if (!taken.has(g) && alike >= most) {
        best = g
        most = alike
      }
    }
    if (best < 0) continue
    taken.add(best)
    const source = gone[best]!
    // what little of either block had found another partner gives it up
    for (let i = source[0]; i < source[1]; i++)
      if (to[i]! >= 0) {
        from[to[i]!] = -1
        to[i] = -1
      }
    for (let j = range[0]; j < range[1]; j++)
      if (from[j]! >= 0) {
        to[from[j]!] = -1
        from[j] = -1
      }
    const inner = alignTokens(a.ids.subarray(source[0], source[1]), b.ids.subarray(range[0], range[1]))
    inner.forEach((i, k) => {
      if (i >= 0) {
        from[range[0] + k] = source[0] + i
        to[source[0] + i] = range[0] + k
      }
    })
    moved.push({ a: source, b: range })
  }
  return moved
}

/** Blocks of enough words, mostly of tokens for which `is` holds. */
function mostly({ tokens }: PageText, is: (i: number) => boolean): Array<readonly [number, number]> {
  const starts = blockStarts(tokens)
  const found: Array<readonly [number, number]> = []
  for (let k = 0; k + 1 < starts.length; k++) {
    let [words, hit] = [0, 0]
    for (let i = starts[k]!; i < starts[k + 1]!; i++)
      if (tokens[i]!.kind === 'word') {
        words++
        if (is(i)) hit++
      }
    if (words >= LEAST_MOVED && hit >= MOSTLY * words) found.push([starts[k]!, starts[k + 1]!])
  }
  return found
}

/** Every three words in a row, as one text each. */
function shinglesOf({ tokens, ids }: PageText, [start, end]: readonly [number, number]): Set<string> {
  const words: number[] = []
  for (let i = start; i < end; i++) if (tokens[i]!.kind === 'word') words.push(ids[i]!)
  const set = new Set<string>()
  for (let i = 0; i + 3 <= words.length; i++) set.add(`${words[i]},${words[i + 1]},${words[i + 2]}`)
  return set
}

/** A difference by itself: what of the earlier text stays, in the order of the later, and what is new. */
export type Step =
  | { readonly keep: readonly [number, number]; readonly forms?: ReadonlyArray<readonly [number, string]> }
  | { readonly add: readonly Token[] }

/**
 * The difference of two texts; with `applySteps` the earlier text and it give the later. `forms`: words
 * that look different than before.
 */
export function stepsOf(a: PageText, b: PageText, { from }: Comparison): Step[] {
  const steps: Array<{ keep?: [number, number]; forms?: Array<[number, string]>; add?: Token[] }> = []
  from.forEach((i, j) => {
    const last = steps.at(-1)
    const token = b.tokens[j]!
    if (i < 0) {
      if (last?.add) last.add.push(token)
      else steps.push({ add: [token] })
      return
    }
    let step = last
    if (step?.keep && step.keep[0] + step.keep[1] === i) step.keep[1]++
    else steps.push((step = { keep: [i, 1] }))
    if (a.tokens[i]!.form !== token.form) (step.forms ??= []).push([step.keep![1] - 1, token.form])
  })
  return steps as Step[]
}

export function applySteps(a: readonly Token[], steps: readonly Step[]): Token[] {
  return steps.flatMap(step => {
    if ('add' in step) return [...step.add]
    const forms = new Map(step.forms)
    return a
      .slice(step.keep[0], step.keep[0] + step.keep[1])
      .map((t, k) => (forms.has(k) ? { ...t, form: forms.get(k)! } : t))
  })
}
