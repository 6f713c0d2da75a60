import { and, eq, isNotNull, ne, or, asc, sql } from 'drizzle-orm'
import { reviewOf } from '#core/kinds/review/reviewSettings'
import { worthOf } from '#core/marking/showMark'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, criterionMarks, groupMembers, groups, marks, secondMarks } from '#server/database/schema'
import { countedStudents, practiceStudents } from '#server/services/people'
import { loadPlan, loadPlans, participants, takesPartIn } from '#server/services/planning'
import { countStandings, readChecked, readStandings, standingsIn } from '#server/services/standing'
import type { DeskView, MarkingQueue } from '#shared/marking/desk'
import { underOlderVersion } from './mark'
import { markersOf, sharesIn } from './markers'
import { latenessOfRecord } from '#core/marking/latenessOfRecord'

/** Everyone who is marked in an activity, by family name, with where each stands and whose share they are. */
export async function deskView(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  now: Date,
): Promise<DeskView> {
  const { activity } = actor
  const [plan, everyone, practice, markers, shares, seconds, inGroups, older, held, judgedIn] =
    await Promise.all([
      loadPlan(db, activity),
      participants(db, activity),
      practiceStudents(db, actor.seminar.id),
      markersOf(db, actor),
      sharesIn(db, [activity.id]),
      db
        .select({
          enrolmentId: secondMarks.enrolmentId,
          markerId: secondMarks.markerId,
          state: secondMarks.state,
        })
        .from(secondMarks)
        .where(eq(secondMarks.activityId, activity.id)),
      groupsOf(db, activity),
      underOlderVersion(db, activity),
      heldMarks(db, activity.id),
      criteriaJudged(db, activity.id),
    ])
  const students = everyone.filter(plan.isMeant)
  const standings = (await readChecked(db, [plan], [...students, ...practice], now)).get(activity.id)!
  const tried = practice.filter(s => {
    const { shown, drafts } = standings.get(s.enrolmentId)!
    return shown + drafts > 0
  })
  // what somebody is asked to mark without seeing the first marking is not shown to them here either
  const blind = new Set(
    seconds.filter(s => s.markerId === actor.enrolment.id && s.state === 'asked').map(s => s.enrolmentId),
  )
  const views = [...students, ...tried].map(s => {
    const judged = standings.get(s.enrolmentId)!
    const mark = blind.has(s.enrolmentId) ? undefined : held.get(s.enrolmentId)
    return {
      id: s.enrolmentId,
      practice: tried.includes(s),
      name: s.name,
      givenName: s.givenName,
      familyName: s.familyName,
      markerId: shares.get(activity.id)!.get(s.enrolmentId) ?? null,
      groupId: inGroups.ofPerson.get(s.enrolmentId) ?? null,
      standing: judged.standing,
      judged: blind.has(s.enrolmentId) ? [] : (judgedIn.get(s.enrolmentId) ?? []),
      held: mark
        ? {
            ...mark,
            lateMinutes:
              latenessOfRecord(plan, activity.lateRule, judged.checks, s.enrolmentId)?.minutes ?? 0,
          }
        : null,
    }
  })
  return {
    students: views,
    counts: countStandings(views.filter(v => !v.practice).map(v => v.standing)),
    markers,
    groups: inGroups.groups,
    seconds,
    combine: activity.combine,
    worth: worthOf(activity),
    together: activity.returnTogether,
    olderVersions: older.length,
    reviewingPercent: reviewOf(activity.settings).reviewingPercent,
  }
}

/** Criteria of which each student has a step. */
async function criteriaJudged(db: Db, activityId: string): Promise<Map<string, string[]>> {
  const rows = await db
    .select({
      enrolmentId: marks.enrolmentId,
      criteria: sql<string[]>`array_agg(${criterionMarks.criterionId}::text)`,
    })
    .from(criterionMarks)
    .innerJoin(marks, eq(marks.id, criterionMarks.markId))
    .where(eq(marks.activityId, activityId))
    .groupBy(marks.enrolmentId)
  return new Map(rows.map(r => [r.enrolmentId, r.criteria]))
}

/** Marks that are held, by student: what a marker looks at before they are returned. */
async function heldMarks(db: Db, activityId: string) {
  const rows = await db
    .select({
      enrolmentId: marks.enrolmentId,
      points: marks.points,
      returned: marks.returned,
      hasLetter: sql<boolean>`${marks.letterText} ~ '\\S'`, // whole letters would come with every look at the desk
      lateWaived: marks.lateWaived,
      override: marks.overridePoints,
      returnAt: marks.returnAt,
    })
    .from(marks)
    .where(and(eq(marks.activityId, activityId), eq(marks.state, 'held')))
  return new Map(
    rows.map(m => [
      m.enrolmentId,
      {
        points: m.points ?? 0,
        returned: m.returned?.points ?? null,
        hasLetter: m.hasLetter,
        lateWaived: m.lateWaived,
        setByHand: m.override !== null,
        returnAt: m.returnAt?.toISOString() ?? null,
      },
    ]),
  )
}

async function groupsOf(db: Db, { audience }: ActivityRow) {
  if (audience.kind !== 'groups') return { groups: [], ofPerson: new Map<string, string>() }
  const [all, members] = await Promise.all([
    db
      .select({ id: groups.id, title: groups.title })
      .from(groups)
      .where(eq(groups.groupPlanId, audience.groupPlanId))
      .orderBy(asc(groups.position)),
    db
      .select({ groupId: groupMembers.groupId, enrolmentId: groupMembers.enrolmentId })
      .from(groupMembers)
      .where(eq(groupMembers.groupPlanId, audience.groupPlanId)),
  ])
  return { groups: all, ofPerson: new Map(members.map(m => [m.enrolmentId, m.groupId])) }
}

/** All activities that are marked, those with work ready first, then by when they closed; with the reader's own share of each. */
export async function markingQueue(db: Db, actor: Actor, now: Date): Promise<MarkingQueue> {
  const rows = await db
    .select()
    .from(activities)
    .where(
      and(
        takesPartIn(db, actor.seminar.id),
        eq(activities.state, 'published'),
        or(
          isNotNull(activities.rubricVersionId),
          isNotNull(activities.points),
          eq(activities.scale, 'complete'),
        ),
        ne(activities.scale, 'none'),
        eq(activities.isTemplate, false),
      ),
    )
  const ids = rows.map(a => a.id)
  const [plans, students, markers, shares, seconds] = await Promise.all([
    loadPlans(db, rows),
    countedStudents(db, actor.seminar.id),
    markersOf(db, actor),
    sharesIn(db, ids),
    db
      .select({ activityId: secondMarks.activityId, enrolmentId: secondMarks.enrolmentId })
      .from(secondMarks)
      .where(and(eq(secondMarks.markerId, actor.enrolment.id), eq(secondMarks.state, 'asked'))),
  ])
  const standings = await readStandings(db, plans, students, now)
  const queue = plans.map(plan => {
    const share = shares.get(plan.activity.id)!
    const judged = standingsIn(plan, standings, students).map(s => ({
      id: s.student.enrolmentId,
      standing: s.standing,
    }))
    const own = judged.filter(j => share.get(j.id) === actor.enrolment.id)
    const asked = seconds.filter(s => s.activityId === plan.activity.id)
    return {
      id: plan.activity.id,
      kind: plan.activity.kind,
      title: plan.activity.title,
      closesAt: plan.closesAt.toISOString(),
      counts: countStandings(judged.map(j => j.standing)),
      firstReady: judged.find(j => j.standing === 'ready')?.id ?? null,
      mine: share.size > 0 ? countStandings(own.map(j => j.standing)) : null,
      firstMine: own.find(j => j.standing === 'ready')?.id ?? null,
      seconds: asked.length,
      firstSecond: asked[0]?.enrolmentId ?? null,
    }
  })
  queue.sort(
    (a, b) => Number(b.counts.ready > 0) - Number(a.counts.ready > 0) || a.closesAt.localeCompare(b.closesAt),
  )
  return { activities: queue, markers }
}
