import { and, asc, eq, inArray } from 'drizzle-orm'
import { stringify } from 'csv-stringify/sync'
import { reportOutcomes, type Judgement, type OutcomeReport } from '#core/marking/outcomes'
import { safeCell } from '#core/marking/results/safeCell'
import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  activities,
  criterionMarks,
  marks,
  outcomes,
  rubricCriteria,
  sections,
} from '#server/database/schema'
import { countedStudents } from '#server/services/contributing/records'
import { takesPartIn } from '#server/services/planning/jointActivities'
import type { OutcomesQuery, OutcomesView } from '#shared/marking/outcomes'

const USUAL_THRESHOLD = 60 // percent, where the seminar has no pass mark

/**
 * How far the outcomes of a seminar are reached, from the steps of returned marks (held ones, too, where the gradebook
 * counts them). Practice, withdrawn students and criteria a member is left out of take no part.
 */
export async function readOutcomes(db: Db, { seminar }: Actor, query: OutcomesQuery): Promise<OutcomesView> {
  const from = query.from ?? seminar.grading.passPercent ?? USUAL_THRESHOLD
  const [students, list, sectionRows, rows] = await Promise.all([
    countedStudents(db, seminar.id),
    db.select().from(outcomes).where(eq(outcomes.seminarId, seminar.id)).orderBy(asc(outcomes.position)),
    db
      .select({ id: sections.id, title: sections.title })
      .from(sections)
      .where(eq(sections.seminarId, seminar.id))
      .orderBy(asc(sections.position)),
    db
      .select({
        studentId: marks.enrolmentId,
        excusedFrom: marks.excusedFrom,
        criterionId: criterionMarks.criterionId,
        points: criterionMarks.points,
        max: rubricCriteria.max,
        weight: rubricCriteria.weight,
        criterion: rubricCriteria.title,
        outcomeId: rubricCriteria.outcomeId,
        activityId: activities.id,
        activity: activities.title,
        kind: activities.kind,
      })
      .from(criterionMarks)
      .innerJoin(marks, eq(marks.id, criterionMarks.markId))
      .innerJoin(rubricCriteria, eq(rubricCriteria.id, criterionMarks.criterionId))
      .innerJoin(activities, eq(activities.id, marks.activityId))
      .where(
        and(
          takesPartIn(db, seminar.id),
          eq(activities.practice, false),
          inArray(marks.state, seminar.grading.countHeld ? ['held', 'returned'] : ['returned']),
        ),
      )
      .orderBy(
        asc(activities.opensAt),
        asc(activities.id),
        asc(rubricCriteria.position),
        asc(marks.enrolmentId),
      ),
  ])
  const student = new Map(students.map(s => [s.enrolmentId, s]))
  const judged = rows.filter(
    r => student.has(r.studentId) && r.max > 0 && !r.excusedFrom.some(e => e.criterionId === r.criterionId),
  )
  const known = new Set(list.map(o => o.id))
  const judgements = judged.flatMap((r): Judgement[] =>
    r.outcomeId && known.has(r.outcomeId)
      ? [{ ...r, outcomeId: r.outcomeId, sectionId: student.get(r.studentId)!.sectionId }]
      : [],
  )
  const titles = new Map(rows.map(r => [r.activityId, { activity: r.activity, kind: r.kind }]))
  const inOrder = (of: OutcomeReport['sections']) =>
    [...sectionRows, { id: null, title: 'no section' }].flatMap(s => {
      const found = of.find(x => x.sectionId === s.id)
      return found ? [{ ...found, title: s.title }] : []
    })
  const reports = new Map(
    reportOutcomes(
      judgements,
      list.map(o => o.id),
      from,
    ).map(r => [r.outcomeId, r]),
  )
  return {
    from,
    students: students.length,
    without: judged.length - judgements.length,
    outcomes: list.map(({ id, identifier, code, statement }) => {
      const { outcomeId: _, ...r } = reports.get(id)!
      return {
        id,
        identifier,
        code,
        statement,
        ...r,
        sections: inOrder(r.sections),
        criteria: r.criteria.map(c => ({
          ...c,
          ...titles.get(c.activityId)!,
          sections: inOrder(c.sections),
        })),
        people: students.flatMap(s => {
          const p = r.students.find(x => x.studentId === s.enrolmentId)
          return p
            ? [
                {
                  id: s.enrolmentId,
                  name: `${s.familyName}, ${s.givenName}`,
                  percent: Math.round(p.share * 1000) / 10,
                  above: p.above,
                  judgements: p.judgements,
                },
              ]
            : []
        }),
      }
    }),
  }
}

/** The report to take away: by outcome, criterion and section, or by student. Every outcome keeps its CASE identifier. */
export async function exportOutcomes(
  db: Db,
  actor: Actor,
  query: OutcomesQuery & { readonly by: 'criterion' | 'student' },
): Promise<{ readonly name: string; readonly type: string; readonly bytes: Buffer }> {
  const view = await readOutcomes(db, actor, query)
  const percent = (share: number | null) => (share === null ? null : Math.round(share * 1000) / 10)
  const rows = view.outcomes.flatMap((o): Array<Record<string, string | number | null>> => {
    const head = {
      'outcome identifier (CASE)': o.identifier,
      outcome: safeCell(o.code),
      statement: safeCell(o.statement),
    }
    if (query.by === 'student')
      return o.people.map(p => ({
        ...head,
        student: safeCell(p.name),
        'criteria judged': p.judgements,
        percent: p.percent,
        [`from ${view.from} percent`]: p.above ? 'above' : 'below',
      }))
    const line = (
      activity: string,
      criterion: string,
      section: string,
      r: { judged: number; above: number; below: number; mean: number | null },
    ) => ({
      ...head,
      activity: safeCell(activity),
      criterion: safeCell(criterion),
      section: safeCell(section),
      'students judged': r.judged,
      [`from ${view.from} percent`]: r.above,
      below: r.below,
      'mean percent': percent(r.mean),
    })
    const both = (activity: string, criterion: string, r: typeof o | (typeof o.criteria)[number]) => [
      line(activity, criterion, 'all', r),
      ...r.sections.map(s => line(activity, criterion, s.title, s)),
    ]
    return [...both('all', 'all', o), ...o.criteria.flatMap(c => both(c.activity, c.criterion, c))]
  })
  return {
    name: `${actor.seminar.code.replace(/[^\p{L}\p{N}]+/gu, ' ').trim()} outcomes by ${query.by}.csv`,
    type: 'text/csv; charset=utf-8',
    bytes: Buffer.from(`\uFEFF${stringify(rows, { header: true })}`),
  }
}
