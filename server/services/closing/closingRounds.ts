import { and, asc, eq } from 'drizzle-orm'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { closingAnswers, closingSurveys } from '#server/database/schema'
import type { ClosingView } from '#shared/closing/closing'

export type ClosingSurvey = typeof closingSurveys.$inferSelect

export const stateOf = (
  survey: Pick<ClosingSurvey, 'opensAt' | 'closesAt'> | undefined,
  now: Date,
): ClosingView['state'] => {
  if (!survey) return 'none'
  if (now < survey.opensAt) return 'planned'
  if (now < survey.closesAt) return 'open'
  return 'closed'
}
export const STAY_CLOSED = 'So that nobody is known by an answer that comes alone, they do not open again.'
/** Whether questions stay closed: answers without names came in, and may have been read. */
export const isFinal = (survey: ClosingSurvey, given: number, now: Date): boolean =>
  !survey.named && given > 0 && now >= survey.closesAt
/** All rounds of questions of an activity, the first one first. */
export const roundsOf = async (db: Db, activityId: string, lock = false): Promise<ClosingSurvey[]> => {
  const query = db
    .select()
    .from(closingSurveys)
    .where(eq(closingSurveys.activityId, activityId))
    .orderBy(asc(closingSurveys.round))
  return lock ? await query.for('update') : await query
}
export const isRound = ({ activityId, round }: Pick<ClosingSurvey, 'activityId' | 'round'>) =>
  and(eq(closingSurveys.activityId, activityId), eq(closingSurveys.round, round))
export const answersIn = ({ activityId, round }: Pick<ClosingSurvey, 'activityId' | 'round'>) =>
  and(eq(closingAnswers.activityId, activityId), eq(closingAnswers.round, round))
/** How many have answered a round. */
export const givenIn = async (db: Db, survey: ClosingSurvey): Promise<number> =>
  survey.takers.length + (await db.$count(closingAnswers, answersIn(survey)))

/** Which round somebody reads: staff the one they ask for, else the last; everyone else the last that has opened. */
export function roundFor(
  rounds: readonly ClosingSurvey[],
  { enrolment }: ActivityActor,
  asked: number | undefined,
  now: Date,
): ClosingSurvey | undefined {
  if (!isStaff(enrolment)) return rounds.findLast(r => r.opensAt <= now)
  if (asked === undefined) return rounds.at(-1)
  const found = rounds.find(r => r.round === asked)
  if (!found) throw nothingHere()
  return found
}
