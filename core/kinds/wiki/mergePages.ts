import { comparePages } from './comparePages'
import { sameTokens as same, type PageReader, type PageText, type Token } from './pageText'

/** A place where two writers changed the same words differently. Each side as it would stand there. */
export interface Overlap {
  readonly base: readonly Token[]
  readonly mine: readonly Token[]
  readonly theirs: readonly Token[]
}
export const CHOICES = ['mine', 'theirs', 'both'] as const
export type Choice = (typeof CHOICES)[number]

export interface Merged {
  readonly text: PageText // with the choices made; where none is made yet, both sides stand, theirs first
  readonly overlaps: readonly Overlap[]
}

/**
 * Joins two texts that were written from one (three-way merge; Khanna, Kunal and Pierce 2007 for what may be joined):
 * where only one side changed something, or both did the same, it is taken; new blocks of both sides at one place both
 * stand; everything else is a true overlap and is asked for. No word of either side is left out but by a choice.
 */
export function mergePages(
  reader: PageReader,
  base: PageText,
  mine: PageText,
  theirs: PageText,
  choices: readonly (Choice | undefined)[] = [],
): Merged {
  const [toMine, toTheirs] = [inOrder(base, mine), inOrder(base, theirs)]
  const out: Token[] = []
  const overlaps: Overlap[] = []
  let [b, m, t] = [0, 0, 0]
  for (let k = 0; k <= base.tokens.length; k++) {
    const end = k === base.tokens.length
    if (!end && (toMine[k]! < 0 || toTheirs[k]! < 0)) continue
    const [m1, t1] = end ? [mine.tokens.length, theirs.tokens.length] : [toMine[k]!, toTheirs[k]!]
    chunk(base.tokens.slice(b, k), mine.tokens.slice(m, m1), theirs.tokens.slice(t, t1))
    if (end) break
    const [was, my, their] = [base.tokens[k]!, mine.tokens[m1]!, theirs.tokens[t1]!]
    out.push(my.form !== was.form ? my : their) // what it looks like now: changed by either
    b = k + 1
    m = m1 + 1
    t = t1 + 1
  }
  return { text: reader.textOf(out), overlaps }

  function chunk(was: readonly Token[], my: readonly Token[], their: readonly Token[]) {
    if (same(my, was)) {
      out.push(...their)
      return
    }
    if (same(their, was) || same(my, their)) {
      out.push(...my)
      return
    }
    if (was.length === 0 && my[0]?.kind === 'block' && their[0]?.kind === 'block') {
      out.push(...their, ...my)
      return
    }
    const choice = choices[overlaps.length] ?? 'both'
    overlaps.push({ base: was, mine: my, theirs: their })
    if (choice !== 'mine') out.push(...their)
    if (
      choice === 'both' &&
      their.length > 0 &&
      my.length > 0 &&
      my[0]!.kind !== 'block' &&
      their.at(-1)!.kind !== 'gap'
    )
      out.push(space(reader))
    if (choice !== 'theirs') out.push(...my)
  }
}

const space = (reader: PageReader): Token => ({ kind: 'gap', id: reader.plain(' '), text: ' ', form: '' })

/** For each token of the base, where it stands in a version, as far as they keep their order; −1 where it is gone or moved. */
function inOrder(base: PageText, version: PageText): Int32Array {
  const { from, moved } = comparePages(base, version)
  const to = new Int32Array(base.tokens.length).fill(-1)
  let j = 0
  for (const m of [...moved, null]) {
    const end = m ? m.b[0] : from.length
    for (; j < end; j++) if (from[j]! >= 0) to[from[j]!] = j
    j = m ? m.b[1] : j
  }
  return to
}
