/** How marks of single contributions make one mark. */
export const COMBINING = ['mean', 'sum', 'count', 'best', 'latest'] as const
export type CombineRule =
  | { readonly by: 'mean' | 'sum' | 'latest'; readonly each: number } // `each`: what one contribution can get, hundredths
  | { readonly by: 'best'; readonly each: number; readonly k: number } // the best k; k are asked for
  | { readonly by: 'count'; readonly need: number } // marked done; `need` of them make full marks

export interface ContributionMark {
  readonly id: string
  readonly at: Date // when the contribution was shown
  readonly points: number | null // hundredths, for all rules but `count`
  readonly done: boolean | null // for `count`
}

export interface CombinedMark {
  readonly points: number | null // hundredths, unrounded, 0..max; null while nothing is marked
  readonly used: readonly string[] // contributions that made it, in order of time
}

/**
 * One mark from the marks of single contributions: those that are withdrawn or await approval are not to be passed in.
 * mean: of all marked. sum: capped at the maximum. count: done ones, `need` of them for full marks. best: the k highest of
 * k asked for. latest: the last one marked. A contribution not marked yet is left out, never zero.
 *
 * @param max what the activity is worth, hundredths
 * @throws {RangeError} if a mark lies outside 0..each, or a rule's number is not > 0
 * @example count, need 2, max 1000, one done => 500
 */
export function combineMarks(
  marks: readonly ContributionMark[],
  rule: CombineRule,
  max: number,
): CombinedMark {
  const inOrder = [...marks].sort((a, b) => a.at.getTime() - b.at.getTime())
  if (rule.by === 'count') {
    if (!(rule.need > 0)) throw new RangeError('combineMarks: need must be > 0')
    const judged = inOrder.filter(m => m.done !== null)
    const done = judged.filter(m => m.done)
    return {
      points: judged.length === 0 ? null : Math.min(1, done.length / rule.need) * max,
      used: done.map(m => m.id),
    }
  }
  if (!(rule.each > 0) || (rule.by === 'best' && !(rule.k > 0)))
    throw new RangeError('combineMarks: what one can get must be > 0')
  const judged = inOrder.filter(m => m.points !== null)
  for (const m of judged)
    if (!(m.points! >= 0 && m.points! <= rule.each))
      throw new RangeError(`combineMarks: points of ${m.id} must be in 0..${rule.each}`)
  if (judged.length === 0) return { points: null, used: [] }
  const sum = (list: readonly ContributionMark[]) => list.reduce((total, m) => total + m.points!, 0)
  switch (rule.by) {
    case 'mean':
      return { points: (sum(judged) / (judged.length * rule.each)) * max, used: judged.map(m => m.id) }
    case 'sum':
      return { points: Math.min(max, sum(judged)), used: judged.map(m => m.id) }
    case 'latest':
      return { points: (judged.at(-1)!.points! / rule.each) * max, used: [judged.at(-1)!.id] }
    case 'best': {
      const best = [...judged].sort((a, b) => b.points! - a.points!).slice(0, rule.k)
      return {
        points: (sum(best) / (rule.k * rule.each)) * max,
        used: judged.filter(m => best.includes(m)).map(m => m.id),
      }
    }
  }
}
