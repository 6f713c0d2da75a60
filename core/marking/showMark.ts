import { gradeLetterOf, percentOf } from './gradebook/gradebook'
import type { Scale } from '../planning/scale'

/** What an activity is worth, hundredths: one that is done or not without points counts as one point. */
export const worthOf = (activity: { readonly points: number | null; readonly scale: Scale }): number =>
  activity.points ?? (activity.scale === 'complete' ? 100 : 0)

/** Whether an activity is marked at all: by a rubric, for points, or as done or not. */
export const isMarked = (activity: {
  readonly points: number | null
  readonly scale: Scale
  readonly rubricVersionId: string | null
}): boolean =>
  activity.scale !== 'none' &&
  (activity.points !== null || activity.rubricVersionId !== null || activity.scale === 'complete')

/** Whether somebody marks it, also for the words alone: where a rubric is judged that gives no mark. */
export const takesMarking = (activity: Parameters<typeof isMarked>[0]): boolean =>
  isMarked(activity) || activity.rubricVersionId !== null

export interface ShownMark {
  readonly points: number
  readonly max: number
  readonly scale: Scale
  readonly letter?: string | null
}

/** A mark in the words of its scale: "17 of 25", "68 %", "B", "done". An activity worth nothing has no per cent. */
export function showMark({ points, max, scale, letter }: ShownMark): string {
  const plain = `${points / 100} of ${max / 100}`
  switch (scale) {
    case 'points':
      return plain
    case 'percent':
      return max > 0 ? `${percentOf(points / max)} %` : plain
    case 'letter':
      return letter ?? plain
    case 'complete':
      return max > 0 && points * 2 >= max ? 'done' : 'not done'
    case 'none':
      return ''
  }
}

export interface Bands {
  readonly bands: ReadonlyArray<{ readonly letter: string; readonly fromPercent: number }>
}
/** The letter of a mark on a scale; null where there is none, or nothing to get. */
export const letterOfMark = (points: number, max: number, scale: Bands | null): string | null =>
  scale && max > 0 ? gradeLetterOf(points / max, scale.bands) : null
/** Whether a mark passes; null where there is no pass mark. */
export const passes = (points: number, max: number, passPercent: number | null): boolean | null =>
  passPercent === null || max <= 0 ? null : percentOf(points / max) >= passPercent
