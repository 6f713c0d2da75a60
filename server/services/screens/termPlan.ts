import { and, asc, eq } from 'drizzle-orm'
import { KINDS } from '#core/kinds'
import { plainText } from '#core/contributing/richText'
import { pointsOf } from '#core/marking/rubric/rubricDraft'
import { loadByWeek, type LoadOfActivity, weeksOfPhase } from '#core/planning/loadByWeek'
import { askedInAll, expectedLoad } from '#core/planning/load'
import { checkActivity, checkPlan, type CheckedActivity } from '#core/planning/planChecks'
import { isStaff, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, categories, units } from '#server/database/schema'
import { type Student, countedStudents } from '#server/services/people'
import { draftOf, loadRubrics } from '#server/services/rubrics'
import type { PlanActivity, TermPlan } from '#shared/planning/plan'
import { type ActivityPlan, loadPlans, takesPartIn } from '#server/services/planning'
import { closesFor } from '#core/planning/dueTimes'
import { countStandings, readStandings, standingsIn } from '#server/services/standing'

/** The term plan: everything for staff; for others what is published and meant for them, with their own standing and nobody's figures. */
export async function termPlan(db: Db, actor: Actor, now: Date): Promise<TermPlan> {
  const { seminar, enrolment } = actor
  const staff = isStaff(enrolment)
  const [unitRows, rows, students, categoryRows] = await Promise.all([
    db
      .select({ id: units.id, title: units.title, fromWeek: units.fromWeek, toWeek: units.toWeek })
      .from(units)
      .where(eq(units.seminarId, seminar.id))
      .orderBy(asc(units.position)),
    db
      .select()
      .from(activities)
      .where(and(takesPartIn(db, seminar.id), eq(activities.isTemplate, false)))
      .orderBy(asc(activities.position)),
    countedStudents(db, seminar.id),
    staff ? db.select().from(categories).where(eq(categories.seminarId, seminar.id)) : [],
  ])
  const self: Student = {
    enrolmentId: enrolment.id,
    seminarId: enrolment.seminarId,
    sectionId: enrolment.sectionId,
    ...actor.person,
  }
  const all = await loadPlans(
    db,
    rows.filter(a => staff || a.state !== 'draft'),
  )
  // those of other seminars that take part in what is planned here count with its own
  const guests = [...new Set(all.filter(p => p.activity.seminarId === seminar.id).flatMap(p => p.joint))]
  const everyone =
    staff && guests.length > 0 ? [...students, ...(await countedStudents(db, guests))] : students
  const findCounted = () => {
    if (staff) return everyone
    if (enrolment.role === 'student') return [self]
    return []
  }
  const counted = findCounted()
  const plans =
    staff || enrolment.role !== 'student' || enrolment.state === 'practice'
      ? all
      : all.filter(p => p.isMeant(self))
  const standings = await readStandings(db, plans, counted, now)
  const open = plans.filter(
    p => p.activity.state === 'published' && p.activity.opensAt <= now && p.closesAt >= now,
  )
  const loads = staff ? plans.map(p => loadOf(p, everyone)) : []
  const load = staff ? loadByWeek(loads, seminar, seminar.pace) : []
  const checked = staff ? await checkedActivities(db, plans, everyone) : []
  return {
    units: unitRows,
    activities: plans.map(plan => viewOf(plan)),
    students: students.length,
    load,
    // where nobody has written yet, nobody is silent: it has not begun
    silent: staff
      ? open
          .map(p => ({ activityId: p.activity.id, all: standingsIn(p, standings, everyone) }))
          .filter(({ all }) => all.some(s => s.shown > 0))
          .map(({ activityId, all }) => ({
            activityId,
            names: all.filter(s => s.shown === 0).map(s => s.student.name),
          }))
      : [],
    staff: staff
      ? {
          mayManage: enrolment.role === 'instructor' && seminar.state === 'active',
          term: {
            firstDay: seminar.firstDay,
            weeks: seminar.weeks,
            timeZone: seminar.timeZone,
            breaks: seminar.breaks.map(b => ({ ...b })),
          },
          usualDueTime: seminar.usualDueTime,
          pace: { ...seminar.pace },
          studentMinutes: 60 * seminar.studentHoursLimit,
          markingMinutes: 60 * seminar.markingHoursLimit,
          remarks: checked.flatMap(a =>
            checkActivity(a, {
              timeZone: seminar.timeZone,
              usualDueTime: seminar.usualDueTime,
              term: seminar,
              now,
              earlier: checked,
            }).map(remark => ({ activityId: a.id, remark })),
          ),
          planRemarks: checkPlan(
            load,
            categoryRows.map(c => c.weightPercent),
            {
              studentMinutes: 60 * seminar.studentHoursLimit,
              markingMinutes: 60 * seminar.markingHoursLimit,
            },
            weeklyWork(plans, students.length),
          ),
        }
      : null,
  }

  function viewOf(plan: ActivityPlan): PlanActivity {
    const { activity } = plan
    const judged = standingsIn(plan, standings, counted).map(s => (staff ? s.standing : s.ownStanding))
    const { people, marked, restWeeks, rules } = loadOf(plan, everyone)
    const guest = activity.seminarId !== seminar.id
    return {
      id: activity.id,
      unitId: guest ? null : activity.unitId,
      kind: activity.kind,
      title: activity.title,
      summary: activity.summary,
      state: activity.state,
      version: activity.version,
      guest,
      opensAt: activity.opensAt.toISOString(),
      closesAt: closesFor(plan, enrolment.id).toISOString(),
      phases: plan.phases.map(p => ({
        name: p.name,
        startsAt: p.startsAt.toISOString(),
        endsAt: p.endsAt.toISOString(),
      })),
      counts: staff ? countStandings(judged) : null,
      standing: enrolment.role === 'student' ? (judged[0] ?? null) : null,
      planning: staff
        ? {
            rules: [...rules],
            people,
            marked,
            restWeeks: [...(restWeeks ?? [])],
            locked: activity.lockedAt !== null || guest,
            hasStarter: activity.starter !== null,
            weekly: plan.expectations.some(e => e.rule.kind === 'weeklyEntries'),
            byRubric: activity.rubricVersionId !== null,
          }
        : null,
    }
  }

  function weeklyWork(list: readonly ActivityPlan[], people: number) {
    return list.flatMap(p => {
      const rule = p.expectations.find(e => e.rule.kind === 'weeklyEntries')?.rule
      const phase = rule && p.phases.find(x => x.name === rule.due)
      if (!rule || !phase) return []
      const { writing, reading } = expectedLoad(
        [rule],
        people,
        KINDS[p.activity.kind].readBy === 'class',
        seminar.pace,
      )
      return [
        {
          activityId: p.activity.id,
          minutes: writing + reading,
          weeks: weeksOfPhase(phase, seminar, p.activity.settings.rests ?? []),
        },
      ]
    })
  }
}

const loadOf = (plan: ActivityPlan, students: readonly Student[]): LoadOfActivity => ({
  phases: plan.phases,
  rules: askedInAll(
    plan.expectations.map(e => e.rule),
    plan.prompts.length + plan.questions.length,
  ),
  classReads: KINDS[plan.activity.kind].readBy === 'class',
  marked: plan.activity.rubricVersionId !== null || plan.activity.points !== null,
  people: students.filter(plan.isMeant).length,
  restWeeks: plan.activity.settings.rests ?? [],
})

/** Activities as the plan checks see them. */
async function checkedActivities(
  db: Db,
  plans: readonly ActivityPlan[],
  students: readonly Student[],
): Promise<CheckedActivity[]> {
  const versionIds = [
    ...new Set(plans.flatMap(p => (p.activity.rubricVersionId ? [p.activity.rubricVersionId] : []))),
  ]
  const rubrics = await loadRubrics(db, versionIds)
  const points = new Map([...rubrics].map(([id, rubric]) => [id, pointsOf(draftOf(rubric, []))]))
  return plans.map(p => ({
    id: p.activity.id,
    kind: p.activity.kind,
    title: p.activity.title,
    state: p.activity.state,
    opensAt: p.activity.opensAt,
    phases: p.phases,
    rules: p.expectations.map(e => e.rule),
    briefText: plainText(p.activity.brief),
    hasStarter: p.activity.starter !== null,
    points: p.activity.points,
    rubricPoints: p.activity.rubricVersionId ? (points.get(p.activity.rubricVersionId) ?? null) : null,
    counted: p.activity.points !== null && !p.activity.practice,
    hasCategory: p.activity.categoryId !== null,
    people: students.filter(p.isMeant).length,
    restWeeks: p.activity.settings.rests ?? [],
  }))
}
