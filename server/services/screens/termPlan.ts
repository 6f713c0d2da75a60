import { takesMarking } from '#core/marking/showMark'
import { reviewOf } from '#core/kinds/review/reviewSettings'
import { and, asc, eq } from 'drizzle-orm'
import { talkOf } from '#core/contributing/talkSettings'
import { readsAlong } from '#core/kinds'
import { plainText } from '#core/contributing/richText'
import { pointsOf } from '#core/marking/rubric/rubricDraft'
import { loadByWeek, minutesByWeek, type LoadOfActivity } from '#core/planning/loadByWeek'
import { askedInAll, type TakingPart } from '#core/planning/load'
import { conversationOf, sortPeople, type Audience } from '#core/planning/takingPart'
import { weeklySpans } from '#core/planning/weeklySpans'
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
    joinedAt: enrolment.joinedAt,
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
  const sorted = sortPeople(staff ? plans.map(audienceOf) : [], everyone)
  const loads = staff ? plans.map((p, i) => loadOf(p, sorted.parts[i]!)) : []
  const load = staff ? loadByWeek(loads, sorted.sorts, seminar, seminar.pace) : []
  const checked = staff ? await checkedActivities(db, plans, everyone) : []
  return {
    units: unitRows,
    activities: plans.map((plan, i) => viewOf(plan, loads[i] ?? null)),
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
          sorts: sorted.sorts,
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
            weeklyWork(),
          ),
        }
      : null,
  }

  function viewOf(plan: ActivityPlan, own: LoadOfActivity | null): PlanActivity {
    const { activity } = plan
    const judged = standingsIn(plan, standings, counted).map(s => (staff ? s.standing : s.ownStanding))
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
      planning: own
        ? {
            rules: [...own.rules],
            parts: [...own.parts],
            marked: own.marked,
            restWeeks: [...(own.restWeeks ?? [])],
            locked: activity.lockedAt !== null || guest,
            hasStarter: activity.starter !== null,
            weekly: plan.expectations.some(e => e.rule.kind === 'weeklyEntries'),
            byRubric: activity.rubricVersionId !== null,
          }
        : null,
    }
  }

  /** What resting a week of a weekly activity would save those who have most to do in it. */
  function weeklyWork() {
    return plans.flatMap((p, i) => {
      const rule = p.expectations.find(e => e.rule.kind === 'weeklyEntries')?.rule
      const phase = rule && p.phases.find(x => x.name === rule.due)
      if (!rule || !phase) return []
      const own = { ...loads[i]!, rules: [rule], marked: false }
      const { students: minutes } = minutesByWeek(own, seminar, seminar.pace)
      const weeks = weeklySpans(phase, seminar, own.restWeeks ?? []).map(s => s.week)
      const each = [...minutes.values()].map(m => m[(weeks[0] ?? 1) - 1] ?? 0)
      return [{ activityId: p.activity.id, minutes: Math.max(0, ...each), weeks }]
    })
  }
}

const loadOf = (plan: ActivityPlan, parts: readonly TakingPart[]): LoadOfActivity => ({
  phases: plan.phases,
  rules: askedInAll(
    plan.expectations.map(e => e.rule),
    plan.prompts.length + plan.questions.length,
  ),
  marked: takesMarking(plan.activity),
  parts,
  restWeeks: plan.activity.settings.rests ?? [],
})

/** Who takes part in an activity, and who reads whom. */
function audienceOf(plan: ActivityPlan): Audience<Student> {
  const { kind, settings } = plan.activity
  const { apart, opening } = talkOf(settings)
  return {
    isMeant: plan.isMeant,
    conversationOf: ({ sectionId, enrolmentId }) =>
      conversationOf(apart, { sectionId, groupId: plan.groupOf(enrolmentId) }),
    groupOf: s => plan.groupOf(s.enrolmentId),
    readsAlong: readsAlong(kind, { opening }),
  }
}

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
    asksReaders: p.activity.rubricVersionId !== null || reviewOf(p.activity.settings).questions.length > 0,
    people: students.filter(p.isMeant).length,
    restWeeks: p.activity.settings.rests ?? [],
    promptsAt: p.prompts.map(x => x.releaseAt),
    seminar: null,
  }))
}
