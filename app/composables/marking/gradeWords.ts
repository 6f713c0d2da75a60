import {
  gradeLetterOf,
  percentOf,
  type Counted,
  type GradeEntry,
  type GradeItem,
} from '#core/marking/gradebook/gradebook'
import { letterOfMark, showMark } from '#core/marking/showMark'
import {
  CELL_COUNTS,
  CELL_STATES,
  type Gradebook,
  type GradeColumn,
  type GradeRow,
  type OwnGrades,
} from '#shared/marking/gradebook'

type Frame = Pick<Gradebook | OwnGrades, 'columns' | 'categories' | 'grading' | 'bands'>
const COUNTED = Object.fromEntries(
  Object.entries(CELL_COUNTS).map(([word, letter]) => [letter, word]),
) as Record<string, Counted | 'notMeant'>
const STATES = Object.fromEntries(
  Object.entries(CELL_STATES).map(([word, letter]) => [letter, word]),
) as Record<string, keyof typeof CELL_STATES>

export const countedOf = (row: GradeRow, i: number): Counted | 'notMeant' => COUNTED[row.counts[i]!]!
export const stateOf = (row: GradeRow, i: number): keyof typeof CELL_STATES => STATES[row.states[i]!]!

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
    if (counted === 'missing') return '0'
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

/** Why an item counts, or does not, after "it …". */
export const COUNTED_WORDS: Readonly<Record<Counted | 'notMeant', string>> = {
  counted: 'counts',
  missing: 'is missing since its close and counts as zero',
  dropped: 'is left out as one of the lowest',
  excused: 'is excused',
  practice: 'is practice and counts nowhere',
  notYet: 'does not count yet',
  worthNothing: 'is worth nothing',
  noCategory: 'is in no category and counts nowhere',
  notMeant: 'is not for this student',
}

/** What the core calculates from, out of a row as it is shown. Only what counts is passed on as marked. */
export function calculatedFrom(
  frame: Frame,
  row: GradeRow,
): { items: GradeItem[]; entries: Map<string, GradeEntry> } {
  const meant = frame.columns
    .map((c, i) => [c, i] as const)
    .filter(([, i]) => countedOf(row, i) !== 'notMeant')
  return {
    items: meant.map(([c]) => ({ id: c.id, categoryId: c.categoryId, max: c.max, practice: c.practice })),
    entries: new Map(
      meant.map(([c, i]) => {
        const counted = countedOf(row, i)
        const counts = counted === 'counted' || counted === 'dropped'
        return [
          c.id,
          {
            points: counts ? (row.points[i] ?? null) : null,
            excused: counted === 'excused',
            closed: row.closed[i] === '1',
            any: counted !== 'missing',
          },
        ]
      }),
    ),
  }
}
export const categoriesOf = (frame: Frame) =>
  frame.categories.map(c => ({ id: c.id, weight: c.weight, drop: c.drop }))
