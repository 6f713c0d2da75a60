import { listName } from '#core/people/names'
import { and, asc, eq, inArray, isNotNull, or, sql } from 'drizzle-orm'
import { stringify } from 'csv-stringify/sync'
import { reportOutcomes, type Judgement, type OutcomeReport } from '#core/marking/outcomes'
import { safeCell } from '#core/marking/results/safeCell'
import type { Actor, Seminar } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, marks, outcomes, rubricCriteria, sections } from '#server/database/schema'
import { countedStudents } from '#server/services/people'
import { takesPartIn } from '#server/services/planning'
import type { OutcomesQuery, OutcomesView } from '#shared/marking/outcomes'

const USUAL_THRESHOLD = 60 // percent, where the seminar has no pass mark

/**
 * Every criterion judged in what counts, one row for each student: as the mark stands or, where a returned one is being
 * changed, as it was returned.
 */
function judgedSteps(db: Db, seminar: Seminar) {
  const states = seminar.grading.countHeld ? (['held', 'returned'] as const) : (['returned'] as const)
  const counted = db.select({ id: activities.id }).from(activities).where(takesPartIn(db, seminar.id))
  const judged = sql`(
    select m.id as mark_id, s.criterion_id, s.points,
      exists (select 1 from jsonb_array_elements(m.excused_from) e where e ->> 'criterionId' = s.criterion_id::text) as excused
    from marks m join criterion_marks s on s.mark_id = m.id
    where m.activity_id in (${counted}) and (m.returned is null or m.state = 'returned')
    union all
    select m.id, (c ->> 'id')::uuid, (c ->> 'points')::int, jsonb_exists(c, 'excused')
    from marks m cross join lateral jsonb_array_elements(m.returned -> 'criteria') c
    where m.activity_id in (${counted}) and m.returned is not null and m.state <> 'returned' and c ->> 'levelTitle' <> ''
  ) as judged`
  return db
    .select({
      studentId: marks.enrolmentId,
      excused: sql<boolean>`judged.excused`,
      criterionId: rubricCriteria.id,
      points: sql<number>`judged.points`,
      max: rubricCriteria.max,
      weight: rubricCriteria.weight,
      criterion: rubricCriteria.title,
      outcomeId: rubricCriteria.outcomeId,
      activityId: activities.id,
      activity: activities.title,
      kind: activities.kind,
    })
    .from(marks)
    .innerJoin(judged, sql`judged.mark_id = ${marks.id}`)
    .innerJoin(rubricCriteria, sql`${rubricCriteria.id} = judged.criterion_id`)
    .innerJoin(activities, eq(activities.id, marks.activityId))
    .where(and(eq(activities.practice, false), or(inArray(marks.state, states), isNotNull(marks.returned))))
    .orderBy(
      asc(activities.opensAt),
      asc(activities.id),
      asc(rubricCriteria.position),
      asc(marks.enrolmentId),
    )
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
  const judged = rows.filter(r => student.has(r.studentId) && r.max > 0 && !r.excused)
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
