import type { ActivityBody } from '#shared/planning/composer'

export type LateRule = ActivityBody['lateRule']
export type Combine = ActivityBody['combine']

export const lateChoices = [
  { value: 'none' as const, text: 'counts in full' },
  {
    value: 'perDay' as const,
    text: 'loses for each day begun',
    note: 'so many percent of the maximum for each 24 hours by the seminar’s clock, never below a floor',
  },
  { value: 'cap' as const, text: 'earns a part at most', note: 'whenever it comes' },
]

/** A rule for late work with the figures it usually has: twelve hours of grace, 10 % a day down to 50 %, or 70 % at most. */
export function usualLateRule(kind: LateRule['kind']): LateRule {
  if (kind === 'none') return { kind }
  if (kind === 'perDay') return { kind, graceMinutes: 720, percentPerDay: 10, floorPercent: 50 }
  return { kind, graceMinutes: 720, capPercent: 70 }
}

export const combineChoices = [
  { value: null, text: 'set by hand' },
  {
    value: 'mean' as const,
    text: 'the mean of its contributions’ marks',
    note: 'you mark each contribution, in the talk or on the desk',
  },
  {
    value: 'sum' as const,
    text: 'the sum of its contributions’ marks',
    note: 'capped at the points there are',
  },
  {
    value: 'count' as const,
    text: 'how many contributions count',
    note: 'each is marked as counting or not',
  },
  { value: 'best' as const, text: 'made of the best contributions' },
  { value: 'latest' as const, text: 'the mark of the latest contribution' },
]

/** A way to make one mark of several; `each` in hundredths of a point. */
export function usualCombine(by: NonNullable<Combine>['by'] | null, each: number): Combine {
  if (by === null) return null
  if (by === 'count') return { by, need: 2 }
  if (by === 'best') return { by, each, k: 2 }
  return { by, each }
}

/** Whether one passes from a share of the points; which, is any number. */
export const USUAL_PASS = 50
export const passChoices = [
  { value: false, text: 'no pass mark' },
  { value: true, text: 'passed from' },
]
