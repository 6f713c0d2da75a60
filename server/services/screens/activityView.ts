import { and, asc, eq, inArray, lte } from 'drizzle-orm'
import { talkOf } from '#core/contributing/talkSettings'
import { isStaff, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { categories, files, prompts, seminars } from '#server/database/schema'
import { closingFor } from '#server/services/closing'
import { hooksOf } from '#server/services/contributing'
import type { ActivityView } from '#shared/contributing/activity'
import { loadPlan, seminarsOf } from '#server/services/planning'
import { loadRubric } from '#server/services/rubrics'
import { closesFor, dueAtOf } from '#core/planning/dueTimes'
import { readOwn } from '#server/services/standing'

/** An activity for one reader, with their own due times and standing. */
export async function activityView(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  now: Date,
): Promise<ActivityView> {
  const { activity, enrolment } = actor
  const [plan, rubric, [category], released, [spoken], joint] = await Promise.all([
    loadPlan(db, activity),
    loadRubric(db, activity.rubricVersionId),
    activity.categoryId
      ? db
          .select({ title: categories.title, weightPercent: categories.weightPercent })
          .from(categories)
          .where(eq(categories.id, activity.categoryId))
      : [],
    db
      .select({ id: prompts.id, html: prompts.html, releaseAt: prompts.releaseAt })
      .from(prompts)
      .where(and(eq(prompts.activityId, activity.id), lte(prompts.releaseAt, now)))
      .orderBy(asc(prompts.releaseAt), asc(prompts.position)),
    activity.spokenFileId
      ? db.select({ id: files.id, type: files.type }).from(files).where(eq(files.id, activity.spokenFileId))
      : [],
    otherCodes(),
  ])
  return {
    id: activity.id,
    seminarId: enrolment.seminarId,
    kind: activity.kind,
    title: activity.title,
    summary: activity.summary,
    briefHtml: activity.briefHtml,
    state: activity.state,
    opensAt: activity.opensAt.toISOString(),
    closesAt: closesFor(plan, enrolment.id).toISOString(),
    phases: plan.phases.map(p => ({
      name: p.name,
      startsAt: p.startsAt.toISOString(),
      endsAt: p.endsAt.toISOString(),
    })),
    review: null,
    lexicon: null,
    ...hooksOf(activity.kind).settingsFor?.(activity, isStaff(enrolment)),
    writeFirst: activity.settings.writeFirst,
    editMinutes: activity.settings.editMinutes,
    points: activity.points,
    pointStep: activity.pointStep,
    scale: activity.scale,
    combine: isStaff(enrolment) ? activity.combine : null,
    practice: activity.practice,
    passPercent: activity.passPercent,
    hiddenUntil: activity.settings.hiddenUntil ?? null,
    starterHtml: activity.starterHtml,
    spoken: spoken ? { url: `/api/files/${spoken.id}`, type: spoken.type } : null,
    talk: structuredClone(talkOf(activity.settings)) as ActivityView['talk'],
    joint,
    prompts: released.map((p, i) => ({
      id: p.id,
      number: i + 1,
      html: p.html,
      releaseAt: p.releaseAt.toISOString(),
    })),
    rests: [...(activity.settings.rests ?? [])],
    category: category ?? null,
    expectations: plan.expectations.map(e => ({
      id: e.id,
      rule: e.rule,
      dueAt: dueAtOf(plan, e.rule, enrolment.id).toISOString(),
    })),
    rubric,
    standing: enrolment.role === 'student' ? await ownStanding() : null,
    closing: await closingFor(db, actor, now),
    open: activity.state === 'published' && now >= activity.opensAt,
  }

  /** Codes of the other seminars one is in company with. */
  async function otherCodes() {
    const rows = await db
      .select({ id: seminars.id, code: seminars.code })
      .from(seminars)
      .where(inArray(seminars.id, await seminarsOf(db, activity)))
    return rows
      .filter(s => s.id !== enrolment.seminarId)
      .map(s => s.code)
      .sort()
  }

  async function ownStanding() {
    const student = {
      enrolmentId: enrolment.id,
      seminarId: enrolment.seminarId,
      sectionId: enrolment.sectionId,
      joinedAt: enrolment.joinedAt,
    }
    return (await readOwn(db, plan, student, now)).ownStanding
  }
}
