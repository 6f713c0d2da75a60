import type { PhaseName } from '#core/planning/schedule'

export interface Span {
  readonly from: number
  readonly to: number
} // shares of the term, 0..1

/** Where a span of time lies on the plan: shares of the term's length, cut at its ends. */
export function spanOf(
  from: string,
  to: string,
  term: { readonly startsAt: string; readonly endsAt: string },
): Span {
  const start = Date.parse(term.startsAt)
  const length = Date.parse(term.endsAt) - start
  const share = (at: string) => Math.min(1, Math.max(0, (Date.parse(at) - start) / length))
  return { from: share(from), to: share(to) }
}

/** Phases drawn in a bar; being returned is a moment, not a span. */
export const DRAWN: readonly PhaseName[] = ['write', 'revise', 'respond', 'review', 'mark']

export const percent = (share: number): string => `${(share * 100).toFixed(3)}%`

/** Whole days for a distance dragged over a plan of so many weeks. */
export const daysFor = (pixels: number, width: number, weeks: number): number =>
  Math.round(pixels / (width / (weeks * 7)))
