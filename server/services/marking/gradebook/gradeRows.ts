import { gradeCell } from '#core/marking/gradebook/gradeCell'
import { gradeOf, type GradeEntry, type GradeItem } from '#core/marking/gradebook/gradebook'
import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import type { Student } from '#server/services/people'
import { closesFor } from '#core/planning/dueTimes'
import { CELL_COUNTS, CELL_STATES, type GradeRow } from '#shared/marking/gradebook'
import type { GradebookFrame } from './gradebookFrame'
import { cellKey, loadGrades } from './loadGrades'

/** Who is to read it: staff see held marks, a student only what was returned to them. */
type Reader = 'staff' | 'student'

/** Rows of the given students, calculated by the core from stored marks. */
export async function gradeRows(
  db: Db,
  actor: Actor,
  frame: GradebookFrame,
  students: readonly Student[],
  reader: Reader,
  now: Date,
): Promise<GradeRow[]> {
  const { plans, columns, items, categories } = frame
  if (students.length === 0) return []
  const stored = await loadGrades(db, actor, frame, students, now)
  const policy = actor.seminar.grading
  return students.map(s => {
    const entries = new Map<string, GradeEntry>()
    const meantItems: GradeItem[] = []
    const shown: Array<number | null> = []
    const changes: GradeRow['changes'] = []
    let [states, closed, set] = ['', '', '']
    for (const [i, plan] of plans.entries()) {
      const column = columns[i]!
      const at = cellKey(column.id, s.enrolmentId)
      const mark = stored.marks.get(at)
      const meant = plan.isMeant(s)
      const isClosed = now > closesFor(plan, s.enrolmentId)
      const { state, points, counting, change } = gradeCell({
        reader,
        max: column.max,
        isMeant: meant,
        hasWork: stored.work.has(at),
        stored: mark,
        countHeld: policy.countHeld,
      })
      if (meant) {
        meantItems.push(items[i]!)
        entries.set(column.id, {
          points: counting,
          excused: stored.excused.has(at),
          closed: isClosed,
          any:
            stored.work.has(at) ||
            plan.expectations.length === 0 ||
            (mark !== undefined && mark.state !== 'open'),
          joinedLater: closesFor(plan, s.enrolmentId) < s.joinedAt,
        })
      }
      shown.push(points)
      if (change) changes.push({ column: i, ...change })
      states += CELL_STATES[state]
      closed += isClosed ? '1' : '0'
      const figureFlag = () => {
        if (reader === 'staff' && (mark?.override ?? null) !== null) return '1'
        if (plan.extensions.has(s.enrolmentId)) return 'e'
        return '0'
      }
      set += figureFlag()
    }
    const grade = gradeOf(meantItems, entries, categories, policy)
    const counted = new Map(
      [...grade.categories.flatMap(c => c.parts), ...grade.outside].map(p => [p.itemId, p.counted]),
    )
    return {
      enrolmentId: s.enrolmentId,
      name: s.name,
      givenName: s.givenName,
      familyName: s.familyName,
      sectionId: s.sectionId,
      groupIds: stored.groups.get(s.enrolmentId) ?? [],
      withdrawn: false,
      points: shown,
      changes,
      states,
      closed,
      set,
      counts: columns.map(c => CELL_COUNTS[counted.get(c.id) ?? 'notMeant']).join(''),
      shares: grade.categories.map(c => c.share),
      share: grade.share,
    }
  })
}
