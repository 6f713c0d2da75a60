/** Letters in a row by which offsets of a text are looked up. */
export const GRAM = 8
const BUCKETS = 1 << 20

/** Where each run of `GRAM` letters stands in a text, found by its hash: two integers a letter, one pass to build. */
export class GramIndex {
  private readonly head = new Int32Array(BUCKETS).fill(-1)
  private readonly next: Int32Array
  private readonly count = new Int32Array(BUCKETS)

  constructor(readonly text: string) {
    this.next = new Int32Array(Math.max(0, text.length - GRAM + 1))
    // from the end, so that a list gives the offsets from the front
    for (let i = text.length - GRAM; i >= 0; i--) {
      const bucket = hashAt(text, i)
      this.next[i] = this.head[bucket]!
      this.head[bucket] = i
      this.count[bucket]!++
    }
  }

  /** How many offsets share the hash of the letters at `at` of a pattern: never fewer than they have. */
  commonness(pattern: string, at: number): number {
    return this.count[hashAt(pattern, at)]!
  }

  /** Places where the letters at `at` of a pattern stand, from the front. */
  *offsets(pattern: string, at: number): Generator<number> {
    for (let offset = this.head[hashAt(pattern, at)]!; offset >= 0; offset = this.next[offset]!) {
      if (sameLetters(this.text, offset, pattern, at)) yield offset
    }
  }

  /** Every offset where a text stands word for word, from the front. */
  occurrences(exact: string): number[] {
    const found: number[] = []
    if (exact.length < GRAM) {
      for (let at = this.text.indexOf(exact); at >= 0 && exact !== ''; at = this.text.indexOf(exact, at + 1))
        found.push(at)
      return found
    }
    let rarest = 0
    for (let i = 1; i + GRAM <= exact.length; i++)
      if (this.commonness(exact, i) < this.commonness(exact, rarest)) rarest = i
    for (const offset of this.offsets(exact, rarest))
      if (offset >= rarest && this.text.startsWith(exact, offset - rarest)) found.push(offset - rarest)
    return found
  }
}

/** FNV-1a over the code units, folded to the size of the table. */
function hashAt(text: string, at: number): number {
  let hash = 0x811c9dc5
  for (let i = at; i < at + GRAM; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193)
  return (hash ^ (hash >>> 15)) & (BUCKETS - 1)
}
function sameLetters(a: string, i: number, b: string, j: number): boolean {
  for (let k = 0; k < GRAM; k++) if (a.charCodeAt(i + k) !== b.charCodeAt(j + k)) return false
  return true
}
