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

/**
 * A cell of the gradebook: what it shows, and what of it counts. Points in hundredths; null: none.
 * `change` is there while a returned mark is being changed: what it would be when it is returned anew.
 */
export type GradeCell =
  | { readonly state: 'notMeant'; readonly points: null; readonly counting: null; readonly change: null }
  | {
      readonly state: 'nothing' | 'work' | 'open' | 'held' | 'returned'
      readonly points: number | null
      readonly counting: number | null
      readonly change: { readonly points: number | null } | null
    }

/**
 * A student sees only what was returned. Staff see what is stored, and count what was returned; held marks that were
 * never returned count where held marks do. A returned mark that is being changed stands as it was returned.
 */
export function gradeCell(cell: CellSnapshot): GradeCell {
  if (!cell.isMeant) return { state: 'notMeant', points: null, counting: null, change: null }
  const { reader, stored, countHeld } = cell
  const returned = returnedPoints(cell)
  if (returned !== null) {
    const isChanging = reader === 'staff' && stored!.state !== 'returned'
    const change = isChanging ? { points: storedPoints(cell) } : null
    return { state: 'returned', points: returned, counting: returned, change }
  }
  const points = reader === 'staff' ? storedPoints(cell) : null
  const counting = countHeld && stored?.state === 'held' ? points : null
  return { state: stateBefore(cell, points), points, counting, change: null }
}

/** What was returned stands as it was, in proportion where the activity is worth something else by now. */
function returnedPoints({ stored, max }: CellSnapshot): number | null {
  const returned = stored?.returned
  if (!returned) return null
  const isUnscaled = returned.max === max || returned.max === 0
  return Math.min(max, isUnscaled ? returned.points : Math.round((returned.points * max) / returned.max))
}

function storedPoints({ stored, max }: CellSnapshot): number | null {
  return stored && stored.points !== null ? Math.min(max, stored.points) : null
}

/** The state of a cell before anything was returned. */
function stateBefore({ reader, stored, hasWork }: CellSnapshot, points: number | null) {
  if (reader === 'staff' && stored?.state === 'held') return 'held'
  if (points !== null) return 'open'
  return hasWork ? 'work' : 'nothing'
}
