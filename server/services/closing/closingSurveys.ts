import { isDeepStrictEqual } from 'node:util'
import { and, eq, isNull, lte, sql } from 'drizzle-orm'
import { keptAnswers, putIn, type ClosingAnswers } from '#core/closing/questions'
import { isStaff, nothingHere, notYours, requireMayWrite, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, closingAnswers, closingSurveys } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { loadPlan, participants } from '#server/services/planning'
import { localTime } from '#core/planning/localTime'
import { happened } from '#server/services/events'
import { isSpeaking } from '#server/services/people'
import { doEach, mayBeTried } from '#server/services/dueWork'
import type { ClosingSet, ClosingView } from '#shared/closing/closing'
import { resultsOf } from './closingResults'
import {
  answersIn,
  givenIn,
  isFinal,
  isRound,
  roundFor,
  roundsOf,
  STAY_CLOSED,
  stateOf,
  type ClosingSurvey,
} from './closingRounds'

/** The questions as their reader may have them: a student answers, staff see what came in. */
export async function readClosing(
  db: Db,
  actor: ActivityActor,
  now: Date,
  asked?: number,
): Promise<ClosingView> {
  const { activity, enrolment } = actor
  const [plan, rounds] = await Promise.all([loadPlan(db, activity), roundsOf(db, activity.id)])
  const survey = roundFor(rounds, actor, asked, now)
  const state = stateOf(survey, now)
  const staff = isStaff(enrolment)
  const head = {
    activity: {
      id: activity.id,
      title: activity.title,
      kind: activity.kind,
      closesAt: plan.closesAt.toISOString(),
    },
    state,
    rounds: staff
      ? rounds.map(r => ({ number: r.round, state: stateOf(r, now), closesAt: r.closesAt.toISOString() }))
      : [],
  }
  const shown = survey && {
    number: survey.round,
    // a copy may be changed: the types of what is stored are read-only, those of the contract are not
    questions: structuredClone(survey.questions) as never,
    named: survey.named,
    opensAt: survey.opensAt.toISOString(),
    closesAt: survey.closesAt.toISOString(),
    version: survey.version,
  }
  if (!staff) {
    if (!survey || state === 'planned' || enrolment.role === 'observer') throw nothingHere()
    return { ...head, round: shown!, mine: await ownAnswers(db, survey, enrolment.id), staff: null }
  }
  if (!survey)
    return {
      ...head,
      round: null,
      mine: null,
      staff: {
        asked: 0,
        answered: 0,
        mayChange: enrolment.role === 'instructor',
        isFinal: false,
        mayAskAgain: false,
        results: null,
        why: null,
        people: [],
      },
    }
  const { results, why, answered, people } = await resultsOf(db, survey, now)
  const meant = (await participants(db, activity)).filter(plan.isMeant).length
  const isLast = survey.round === rounds.at(-1)!.round
  return {
    ...head,
    round: shown!,
    mine: null,
    staff: {
      asked: meant,
      answered,
      mayChange: enrolment.role === 'instructor' && answered === 0 && isLast,
      isFinal: !isLast || isFinal(survey, answered, now),
      mayAskAgain: enrolment.role === 'instructor' && isLast && state === 'closed',
      results: structuredClone(results) as never, // a copy, see above
      why,
      people: people.map(p => ({
        ...p,
        answers: structuredClone(p.answers) as never /* a copy, see above */,
      })),
    },
  }
}

async function ownAnswers(db: Db, survey: ClosingSurvey, enrolmentId: string): Promise<ClosingView['mine']> {
  if (!survey.named) return { answered: survey.takers.includes(enrolmentId), answers: {} }
  const [own] = await db
    .select()
    .from(closingAnswers)
    .where(and(answersIn(survey), eq(closingAnswers.enrolmentId, enrolmentId)))
  return {
    answered: own !== undefined,
    answers: structuredClone(own?.answers ?? {}) as never /* a copy, see above */,
  }
}

/**
 * Sets the questions of a round. With the first answer they stand as they are: only the end can still be moved. The round
 * after the last can be begun once that has closed; from then on the earlier ones stay as they are.
 */
export function setClosing(
  db: Database,
  actor: ActivityActor,
  write: ClosingSet,
  now: Date,
): Promise<ClosingView> {
  const [opensAt, closesAt] = [new Date(write.opensAt), new Date(write.closesAt)]
  if (closesAt <= opensAt)
    throw refusedField('closesAt', 'order', 'It would close before it opens. Choose a later end.')
  if (new Set(write.questions.map(q => q.id)).size < write.questions.length)
    throw refusedField('questions', 'twice', 'The same question is in the list twice.')
  return db.transaction(async tx => {
    const rounds = await roundsOf(tx, actor.activity.id, true)
    const survey = rounds.find(r => r.round === write.round)
    const before = rounds.findLast(r => r.round < write.round)
    if (write.round > (rounds.at(-1)?.round ?? 0) + 1) throw nothingHere()
    if ((survey?.version ?? null) !== write.baseVersion)
      throw new Problem(
        409,
        'changed',
        'Somebody has changed these questions meanwhile. What you typed is kept; look at what is stored now.',
        { theirs: survey && { questions: survey.questions } },
      )
    if (rounds.some(r => r.round > write.round))
      throw new Problem(
        409,
        'askedAgain',
        'Questions were asked again since. What was asked before stays as it is.',
      )
    if (before && opensAt < before.closesAt)
      throw refusedField(
        'opensAt',
        'order',
        `The questions before close ${localTime(before.closesAt, actor.seminar.timeZone)}. Choose a later time to open these.`,
      )
    const given = survey ? await givenIn(tx, survey) : 0
    if (
      survey &&
      given > 0 &&
      (survey.named !== write.named ||
        !isDeepStrictEqual(survey.questions, write.questions) ||
        opensAt.getTime() !== survey.opensAt.getTime())
    )
      throw new Problem(
        409,
        'answered',
        'Somebody has answered already, so the questions and the promise about names stand as they are. The end can still be moved.',
      )
    // answers that came one by one after others were read would have a face
    if (survey && isFinal(survey, given, now))
      throw new Problem(
        409,
        'closedForGood',
        `These questions have closed, and what was answered without names can be read. ${STAY_CLOSED}`,
      )
    const values = { questions: write.questions, named: write.named, opensAt, closesAt }
    await tx
      .insert(closingSurveys)
      .values({
        activityId: actor.activity.id,
        round: write.round,
        seminarId: actor.activity.seminarId,
        ...values,
      })
      .onConflictDoUpdate({
        target: [closingSurveys.activityId, closingSurveys.round],
        set: { ...values, version: sql`${closingSurveys.version} + 1` },
      })
    return readClosing(tx, actor, now, write.round)
  })
}

/** Takes the questions of the last round away, as long as nobody has answered them. */
export function removeClosing(db: Database, actor: ActivityActor): Promise<{ removed: true }> {
  return db.transaction(async tx => {
    const survey = (await roundsOf(tx, actor.activity.id, true)).at(-1)
    if (!survey) throw nothingHere()
    if ((await givenIn(tx, survey)) > 0)
      throw new Problem(
        409,
        'answered',
        'Somebody has answered already: the questions stay. You can end them now.',
      )
    await tx.delete(closingSurveys).where(isRound(survey))
    return { removed: true as const }
  })
}

/**
 * Takes a student’s answers. No idempotency record is written for them: it would keep the time beside the name. Sent again after a
 * lost answer, they have been taken once.
 */
export function answerClosing(
  db: Database,
  actor: ActivityActor,
  given: ClosingAnswers,
  now: Date,
): Promise<ClosingView> {
  const { activity, enrolment } = actor
  requireMayWrite(actor)
  if (enrolment.role !== 'student') throw notYours('These questions are for the students who took part.')
  return db.transaction(async tx => {
    const plan = await loadPlan(tx, activity)
    const survey = roundFor(await roundsOf(tx, activity.id, true), actor, undefined, now)
    const state = stateOf(survey, now)
    if (!survey || state === 'planned') throw nothingHere()
    if (state === 'closed')
      throw new Problem(
        409,
        'closed',
        `These questions closed ${localTime(survey.closesAt, actor.seminar.timeZone)}. Nothing more is taken.`,
      )
    if (enrolment.state === 'practice')
      throw new Problem(
        409,
        'practice',
        'Through a practice student’s eyes you can look at it; an answer is not kept.',
      )
    if (
      !plan.isMeant({
        enrolmentId: enrolment.id,
        seminarId: enrolment.seminarId,
        sectionId: enrolment.sectionId,
        joinedAt: enrolment.joinedAt,
      })
    )
      throw nothingHere()
    const answers = keptAnswers(survey.questions, given)
    if (Object.keys(answers).length === 0)
      throw refusedField('answers', 'empty', 'Nothing is answered yet. Answer one question at least.')
    if (survey.named)
      await tx
        .insert(closingAnswers)
        .values({
          activityId: activity.id,
          round: survey.round,
          seminarId: activity.seminarId,
          enrolmentId: enrolment.id,
          answers,
          handedInAt: now,
        })
        .onConflictDoUpdate({
          target: [closingAnswers.activityId, closingAnswers.round, closingAnswers.enrolmentId],
          set: { answers, handedInAt: now },
        })
    else if (!survey.takers.includes(enrolment.id))
      await tx
        .update(closingSurveys)
        .set({ takers: [...survey.takers, enrolment.id].sort(), urns: putIn(survey.urns, answers) })
        .where(isRound(survey))
    return readClosing(tx, actor, now)
  })
}

/** Tells students of questions that have opened. @returns of how many activities */
export async function notifyOfClosing(db: Database, now: Date): Promise<number> {
  const isDue = and(
    isNull(closingSurveys.toldAt),
    isSpeaking(closingSurveys.seminarId),
    lte(closingSurveys.opensAt, now),
    mayBeTried('tellOfClosing', closingSurveys.activityId, now),
  )
  const due = await db
    .select({
      id: closingSurveys.activityId,
      seminarId: closingSurveys.seminarId,
      round: closingSurveys.round,
      activity: activities,
    })
    .from(closingSurveys)
    .innerJoin(activities, eq(activities.id, closingSurveys.activityId))
    .where(and(isDue, eq(activities.state, 'published')))
  return doEach(db, 'tellOfClosing', due, now, async (tx, { activity, round }) => {
    const which = isRound({ activityId: activity.id, round })
    const [survey] = await tx
      .select()
      .from(closingSurveys)
      .where(and(which, isDue))
      .for('update', { skipLocked: true })
    if (!survey) return 0
    await tx.update(closingSurveys).set({ toldAt: now }).where(which)
    if (now >= survey.closesAt) return 1
    const plan = await loadPlan(tx, activity)
    const people = (await participants(tx, activity)).filter(plan.isMeant).map(s => s.enrolmentId)
    await happened(tx, { kind: 'closingOpened', activity, enrolmentIds: people, named: survey.named }, now)
    return 1
  })
}
