import { listName } from '#core/people/names'
import { and, asc, eq, inArray, isNotNull, isNull, ne, or } from 'drizzle-orm'
import { stringify } from 'csv-stringify/sync'
import { reportOutcomes, type Judgement, type OutcomeReport } from '#core/marking/outcomes'
import { safeCell } from '#core/marking/results/safeCell'
import type { Actor, Seminar } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  activities,
  criterionMarks,
  criterionOutcomes,
  marks,
  outcomes,
  rubricCriteria,
  sections,
} from '#server/database/schema'
import { countedStudents } from '#server/services/people'
import { takesPartIn } from '#server/services/planning'
import type { OutcomesQuery, OutcomesView } from '#shared/marking/outcomes'

const USUAL_THRESHOLD = 60 // percent, where the seminar has no pass mark

/**
 * Every criterion judged in what counts, one row for each student: as the mark stands or, where a returned one is being
 * changed, as it was returned.
 */
async function judgedSteps(db: Db, seminar: Seminar) {
  const states = seminar.grading.countHeld ? (['held', 'returned'] as const) : (['returned'] as const)
  const counted = await db
    .select({ id: activities.id, title: activities.title, kind: activities.kind })
    .from(activities)
    .where(and(takesPartIn(db, seminar.id), eq(activities.practice, false)))
    .orderBy(asc(activities.opensAt), asc(activities.id))
  const activityOf = new Map(counted.map((a, position) => [a.id, { ...a, position }]))
  const isCounted = inArray(marks.activityId, [...activityOf.keys()])
  const [standing, returned] = await Promise.all([
    db
      .select({
        activityId: marks.activityId,
        studentId: marks.enrolmentId,
        id: criterionMarks.criterionId,
        points: criterionMarks.points,
        excusedFrom: marks.excusedFrom,
      })
      .from(marks)
      .innerJoin(criterionMarks, eq(criterionMarks.markId, marks.id))
      .where(
        and(isCounted, inArray(marks.state, states), or(isNull(marks.returned), eq(marks.state, 'returned'))),
      ),
    db
      .select({ activityId: marks.activityId, studentId: marks.enrolmentId, returned: marks.returned })
      .from(marks)
      .where(and(isCounted, isNotNull(marks.returned), ne(marks.state, 'returned'))),
  ])
  const judged = [
    ...standing
      .filter(s => !s.excusedFrom.some(e => e.criterionId === s.id))
      .map(({ excusedFrom: _, ...step }) => step),
    ...returned.flatMap(({ returned: letter, ...of }) =>
      letter!.criteria
        .filter(c => c.levelTitle !== '' && c.excused === undefined)
        .map(({ id, points }) => ({ ...of, id, points })),
    ),
  ]
  const criteria = await criteriaById(
    db,
    judged.map(j => j.id),
  )
  return judged
    .flatMap(({ id, ...step }) => {
      const criterion = criteria.get(id)
      return criterion ? [{ ...step, ...criterion, in: activityOf.get(step.activityId)! }] : []
    })
    .sort((x, y) => x.in.position - y.in.position || x.position - y.position)
}

async function criteriaById(db: Db, ids: readonly string[]) {
  const wanted = [...new Set(ids)]
  const [rows, links] = await Promise.all([
    db
      .select({
        id: rubricCriteria.id,
        max: rubricCriteria.max,
        weight: rubricCriteria.weight,
        criterion: rubricCriteria.title,
        position: rubricCriteria.position,
      })
      .from(rubricCriteria)
      .where(inArray(rubricCriteria.id, wanted)),
    db.select().from(criterionOutcomes).where(inArray(criterionOutcomes.criterionId, wanted)),
  ])
  const linked = new Map<string, string[]>()
  for (const { criterionId, outcomeId } of links)
    linked.set(criterionId, [...(linked.get(criterionId) ?? []), outcomeId])
  return new Map(rows.map(({ id, ...criterion }) => [id, { ...criterion, outcomeIds: linked.get(id) ?? [] }]))
}

/**
 * How far the outcomes of a seminar are reached, from the steps of returned marks (held ones, too, where the gradebook
 * counts them). A returned mark that is being changed counts as it was returned. Practice, withdrawn students and criteria
 * a member is left out of take no part.
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
    judgedSteps(db, seminar),
  ])
  const student = new Map(students.map(s => [s.enrolmentId, s]))
  const judged = rows.filter(r => student.has(r.studentId) && r.max > 0)
  const known = new Set(list.map(o => o.id))
  const judgements = judged.flatMap((r): Judgement[] =>
    r.outcomeIds
      .filter(id => known.has(id))
      .map(outcomeId => ({ ...r, outcomeId, sectionId: student.get(r.studentId)!.sectionId })),
  )
  const titles = new Map(rows.map(r => [r.activityId, { activity: r.in.title, kind: r.in.kind }]))
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
    without: judged.filter(r => !r.outcomeIds.some(id => known.has(id))).length,
    // what is retired is reported as far as anything was judged by it
    outcomes: list
      .filter(o => o.retiredAt === null || reports.get(o.id)!.judged > 0)
      .map(({ id, identifier, code, statement, retiredAt }) => {
        const { outcomeId: _, ...r } = reports.get(id)!
        return {
          id,
          identifier,
          code,
          statement,
          retired: retiredAt !== null,
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
                    name: listName(s),
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
