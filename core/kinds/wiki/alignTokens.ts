import { diffArrays } from 'diff'

/** Ranges of so many numbers are given to the exact comparison at once. */
const SMALL = 400
/** Where nothing occurs once in both, so many insertions and removals are looked for before all counts as replaced. */
const MOST_EDITS = 300
/** Lengths of what is looked for as a landmark: three words with what is between, then less. */
const LANDMARKS = [5, 3, 1]
const DEEPEST = 60

/**
 * Which numbers of `b` are which of `a`, in order: the index in `a`, or −1 for what is new. Landmarks that occur once in
 * both texts divide them (as in patience comparison: longest increasing run of unique matches), and only what lies
 * between is compared exactly (Myers 1986). Time grows with the length of the texts, not with the square of their difference.
 */
export function alignTokens(a: Int32Array, b: Int32Array): Int32Array {
  const from = new Int32Array(b.length).fill(-1)
  align(0, a.length, 0, b.length, 0)
  return from

  function align(aLo: number, aHi: number, bLo: number, bHi: number, depth: number) {
    while (aLo < aHi && bLo < bHi && a[aLo] === b[bLo]) from[bLo++] = aLo++
    while (aLo < aHi && bLo < bHi && a[aHi - 1] === b[bHi - 1]) from[--bHi] = --aHi
    if (aLo === aHi || bLo === bHi) return
    if (aHi - aLo + bHi - bLo <= SMALL) {
      exact(aLo, aHi, bLo, bHi, undefined)
      return
    }
    for (const length of depth < DEEPEST ? LANDMARKS : []) {
      const found = landmarks(a, b, aLo, aHi, bLo, bHi, length)
      if (found.length === 0) continue
      let [x, y] = [aLo, bLo]
      for (const [i, j] of found) {
        if (i < x || j < y) continue // overlaps the last one
        align(x, i, y, j, depth + 1)
        for (let k = 0; k < length; k++) from[j + k] = i + k
        x = i + length
        y = j + length
      }
      align(x, aHi, y, bHi, depth + 1)
      return
    }
    exact(aLo, aHi, bLo, bHi, MOST_EDITS)
  }

  function exact(aLo: number, aHi: number, bLo: number, bHi: number, maxEditLength: number | undefined) {
    const [was, is] = [[...a.subarray(aLo, aHi)], [...b.subarray(bLo, bHi)]]
    const changes = maxEditLength === undefined ? diffArrays(was, is) : diffArrays(was, is, { maxEditLength })
    if (!changes) return
    let [i, j] = [aLo, bLo]
    for (const { added, removed, count = 0 } of changes as ReadonlyArray<{
      added?: boolean
      removed?: boolean
      count?: number
    }>) {
      if (added) j += count
      else if (removed) i += count
      else for (let k = 0; k < count; k++) from[j++] = i++
    }
  }
}

/** Runs of `length` numbers that occur once in either range, as many as keep their order in both. */
function landmarks(
  a: Int32Array,
  b: Int32Array,
  aLo: number,
  aHi: number,
  bLo: number,
  bHi: number,
  length: number,
): Array<readonly [number, number]> {
  const inA = uniqueRuns(a, aLo, aHi, length)
  const inB = uniqueRuns(b, bLo, bHi, length)
  const pairs: Array<readonly [number, number]> = []
  for (const [key, j] of inB) {
    const i = inA.get(key)
    if (i !== undefined && i >= 0 && j >= 0 && same(a, i, b, j, length)) pairs.push([i, j])
  }
  pairs.sort((p, q) => p[1] - q[1])
  return longestIncreasing(pairs)
}

/** Where each run begins, by a number made of it; −1 for one that occurs again. */
function uniqueRuns(ids: Int32Array, lo: number, hi: number, length: number): Map<number, number> {
  const at = new Map<number, number>()
  for (let i = lo; i + length <= hi; i++) {
    let key = 0
    for (let k = 0; k < length; k++) key = (Math.imul(key, 0x9e3779b1) + ids[i + k]! + 1) | 0
    at.set(key, at.has(key) ? -1 : i)
  }
  return at
}

function same(a: Int32Array, i: number, b: Int32Array, j: number, length: number): boolean {
  for (let k = 0; k < length; k++) if (a[i + k] !== b[j + k]) return false
  return true
}

/** The longest run of pairs, sorted by their second, whose first rises too: patience sorting with back pointers. */
export function longestIncreasing(
  pairs: ReadonlyArray<readonly [number, number]>,
): Array<readonly [number, number]> {
  const tops: number[] = [] // index of the pair on top of each pile
  const below = new Int32Array(pairs.length).fill(-1)
  pairs.forEach(([value], p) => {
    let [lo, hi] = [0, tops.length]
    while (lo < hi) {
      const middle = (lo + hi) >> 1
      if (pairs[tops[middle]!]![0] < value) lo = middle + 1
      else hi = middle
    }
    if (lo > 0) below[p] = tops[lo - 1]!
    tops[lo] = p
  })
  const run: Array<readonly [number, number]> = []
  for (let p = tops.at(-1) ?? -1; p >= 0; p = below[p]!) run.push(pairs[p]!)
  return run.reverse()
}
