export const STANDINGS = ['nothing', 'underWay', 'ready', 'held', 'returned'] as const
export type Standing = (typeof STANDINGS)[number]

export interface StandingSnapshot {
  readonly mark: 'none' | 'held' | 'returned'
  readonly shown: number // contributions that are shown
  readonly drafts: number // drafts begun; they make a start, never a finish
  readonly closed: boolean // the last working phase has closed for this person, extension counted
  readonly neededMet: boolean // every rule needed for marking is met; false when there is no such rule
}

/**
 * Where one student stands in one activity. Precedence: what was returned, what is held, then readiness
 * (all that is needed is in, or time is up and something is there), then a start, then nothing yet.
 */
export function standingOf(s: StandingSnapshot): Standing {
  if (s.mark === 'returned') return 'returned'
  if (s.mark === 'held') return 'held'
  if (s.shown > 0 && (s.neededMet || s.closed)) return 'ready'
  return s.shown > 0 || s.drafts > 0 ? 'underWay' : 'nothing'
}
