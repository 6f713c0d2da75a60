/** What is stored of one student's mark in one activity; points in hundredths. */
export interface StoredGrade {
  readonly state: 'open' | 'held' | 'returned'
  readonly points: number | null
  readonly returned: { readonly points: number; readonly max: number } | null // what went out, of what it was worth then
}

export interface CellSnapshot {
  readonly reader: 'staff' | 'student'
  readonly max: number // what the activity is worth now, in hundredths
  readonly isMeant: boolean // whether the activity is this student's
  readonly hasWork: boolean
  readonly stored: StoredGrade | undefined
  readonly countHeld: boolean // staff's figures count held marks, too
}

/** A cell of the gradebook: what it shows, and what of it counts. Points in hundredths; null: none. */
export type GradeCell =
  | { readonly state: 'notMeant'; readonly points: null; readonly counting: null }
  | {
      readonly state: 'nothing' | 'work' | 'open' | 'held' | 'returned'
      readonly points: number | null
      readonly counting: number | null
    }

/** A student sees only what was returned; staff see what is stored, and count what was returned unless held marks count. */
export function gradeCell(cell: CellSnapshot): GradeCell {
  if (!cell.isMeant) return { state: 'notMeant', points: null, counting: null }
  const { reader, stored, countHeld } = cell
  const returned = returnedPoints(cell)
  const points = pointsShown(cell, returned)
  const counting = reader === 'staff' && countHeld && stored?.state === 'held' ? points : returned
  return { state: cellState(cell, points, returned), points, counting }
}

/** What was returned stands as it was, in proportion where the activity is worth something else by now. */
function returnedPoints({ stored, max }: CellSnapshot): number | null {
  const returned = stored?.returned
  if (!returned) return null
  const isUnscaled = returned.max === max || returned.max === 0
  return Math.min(max, isUnscaled ? returned.points : Math.round((returned.points * max) / returned.max))
}

function pointsShown({ reader, stored, max }: CellSnapshot, returned: number | null): number | null {
  if (reader === 'student' || !stored || stored.state === 'returned') return returned
  return stored.points === null ? null : Math.min(max, stored.points)
}

function cellState(
  { reader, stored, hasWork }: CellSnapshot,
  points: number | null,
  returned: number | null,
) {
  const begun = hasWork ? 'work' : 'nothing'
  if (reader === 'student') return returned === null ? begun : 'returned'
  if (stored?.state === 'returned' || stored?.state === 'held') return stored.state
  return points === null ? begun : 'open'
}
