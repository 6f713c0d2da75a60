import { and, desc, eq, gt, inArray, lte } from 'drizzle-orm'
import { isStaff, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { closingAnswers, closingSurveys } from '#server/database/schema'

/** How a reader stands to an activity's questions. */
export async function closingFor(
  db: Db,
  { activity, enrolment }: Actor & { readonly activity: ActivityRow },
  now: Date,
): Promise<'none' | 'planned' | 'open' | 'answered' | 'closed'> {
  const rounds = await db
    .select()
    .from(closingSurveys)
    .where(eq(closingSurveys.activityId, activity.id))
    .orderBy(desc(closingSurveys.round))
  // to students a round that has not opened yet does not exist
  const survey = rounds.find(r => isStaff(enrolment) || r.opensAt <= now)
  if (!survey || enrolment.role === 'observer') return 'none'
  if (now < survey.opensAt) return 'planned'
  if (now >= survey.closesAt) return 'closed'
  if (isStaff(enrolment)) return 'open'
  const given =
    survey.takers.includes(enrolment.id) ||
    (await db.$count(
      closingAnswers,
      and(
        eq(closingAnswers.activityId, activity.id),
        eq(closingAnswers.round, survey.round),
        eq(closingAnswers.enrolmentId, enrolment.id),
      ),
    )) > 0
  return given ? 'answered' : 'open'
}

/** Open questions that a student has not answered, of some activities. */
export async function openClosing(
  db: Db,
  activityIds: readonly string[],
  enrolmentId: string,
  now: Date,
): Promise<Array<{ activityId: string; closesAt: string; named: boolean; questions: number }>> {
  if (activityIds.length === 0) return []
  const [rounds, given] = await Promise.all([
    db
      .select()
      .from(closingSurveys)
      .where(
        and(
          inArray(closingSurveys.activityId, [...activityIds]),
          lte(closingSurveys.opensAt, now),
          gt(closingSurveys.closesAt, now),
        ),
      ),
    db
      .select({ activityId: closingAnswers.activityId, round: closingAnswers.round })
      .from(closingAnswers)
      .where(
        and(
          inArray(closingAnswers.activityId, [...activityIds]),
          eq(closingAnswers.enrolmentId, enrolmentId),
        ),
      ),
  ])
  return rounds
    .filter(
      r =>
        !r.takers.includes(enrolmentId) &&
        !given.some(g => g.activityId === r.activityId && g.round === r.round),
    )
    .map(r => ({
      activityId: r.activityId,
      closesAt: r.closesAt.toISOString(),
      named: r.named,
      questions: r.questions.length,
    }))
}
