import { gradeLetterOf, percentOf, type Counted } from '#core/marking/gradebook/gradebook'
import { letterOfMark, showMark } from '#core/marking/showMark'
import type { Gradebook, GradeColumn, GradeRow, OwnGrades } from '#shared/marking/gradebook'
import { countedOf, stateOf } from '#shared/marking/readGradeRow'

type Frame = Pick<Gradebook | OwnGrades, 'bands'>
/** "83.4 %", or a dash where nothing counts yet. */
export const shareWords = (share: number | null): string => (share === null ? '–' : `${percentOf(share)} %`)
export const letterWords = (share: number | null, bands: Frame['bands']): string | null =>
  share === null || !bands ? null : gradeLetterOf(share, bands)

/** Of a returned mark that is being changed: what it would be when it is returned anew. */
export const changeOf = (row: GradeRow, i: number): { readonly points: number | null } | null =>
  row.changes.find(c => c.column === i) ?? null
/** Whether a mark waits to be returned, for the first time or anew. */
export const isHeld = (row: GradeRow, i: number): boolean =>
  stateOf(row, i) === 'held' || changeOf(row, i)?.points != null

/** What stands in a cell. */
export function cellWords(row: GradeRow, i: number, column: GradeColumn): string {
  const counted = countedOf(row, i)
  if (counted === 'notMeant') return ''
  const points = row.points[i]
  if (points === null || points === undefined) {
    if (counted === 'excused') return 'exc.'
    if (counted === 'missing' || counted === 'droppedMissing') return '0'
    return ''
  }
  return pointsOnScale(points, column)
}

/** What a returned mark would be when it is returned anew, beside what stands in its cell; null where that is the same. */
export function changeWords(row: GradeRow, i: number, column: GradeColumn): string | null {
  const change = changeOf(row, i)
  if (!change || change.points === row.points[i]) return null
  return change.points === null ? '…' : pointsOnScale(change.points, column)
}

function pointsOnScale(points: number, column: GradeColumn): string {
  if (column.scale === 'points') return String(points / 100)
  return showMark({
    points,
    max: column.max,
    scale: column.scale,
    letter: letterOfMark(points, column.max, column.bands ? { bands: column.bands } : null),
  })
}

/** The same in a word, where a table has little room; nothing for what counts. */
export const COUNTED_SHORT: Readonly<Record<Counted | 'notMeant', string>> = {
  counted: '',
  missing: 'missing',
  dropped: 'dropped',
  droppedMissing: 'missing, dropped',
  excused: 'excused',
  practice: 'practice',
  notYet: 'not yet',
  joinedLater: 'before joining',
  worthNothing: 'worth nothing',
  noCategory: 'no category',
  notMeant: '',
}

/** Why an item counts, or does not, after "it …". */
export const COUNTED_WORDS: Readonly<Record<Counted | 'notMeant', string>> = {
  counted: 'counts',
  missing: 'is missing since its close and counts as zero',
  dropped: 'is left out as one of the lowest',
  droppedMissing: 'is missing since its close, and left out as one of the lowest',
  excused: 'is excused',
  practice: 'is practice and counts nowhere',
  notYet: 'does not count yet',
  joinedLater: 'closed before they joined, and counts only once points are given',
  worthNothing: 'is worth nothing',
  noCategory: 'is in no category and counts nowhere',
  notMeant: 'is not for this student',
}
