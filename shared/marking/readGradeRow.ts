import type { Counted, GradeEntry, GradeItem } from '#core/marking/gradebook/gradebook'
import { CELL_COUNTS, CELL_STATES, type Gradebook, type GradeRow, type OwnGrades } from './gradebook'

type Frame = Pick<Gradebook | OwnGrades, 'columns' | 'categories'>
const COUNTED = Object.fromEntries(
  Object.entries(CELL_COUNTS).map(([word, letter]) => [letter, word]),
) as Record<string, Counted | 'notMeant'>
const STATES = Object.fromEntries(
  Object.entries(CELL_STATES).map(([word, letter]) => [letter, word]),
) as Record<string, keyof typeof CELL_STATES>

/** Why a cell counts, or does not. */
export const countedOf = (row: GradeRow, i: number): Counted | 'notMeant' => COUNTED[row.counts[i]!]!
/** How far a cell has come. */
export const stateOf = (row: GradeRow, i: number): keyof typeof CELL_STATES => STATES[row.states[i]!]!

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
        const isMissing = counted === 'missing' || counted === 'droppedMissing'
        return [
          c.id,
          {
            points: counts ? (row.points[i] ?? null) : null,
            excused: counted === 'excused',
            closed: row.closed[i] === '1',
            any: !isMissing && counted !== 'joinedLater',
            joinedLater: counted === 'joinedLater',
          },
        ]
      }),
    ),
  }
}

/** The categories of a gradebook, as the core calculates with them. */
export const categoriesOf = (frame: Frame) =>
  frame.categories.map(c => ({ id: c.id, weight: c.weight, drop: c.drop }))
