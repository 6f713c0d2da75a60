import { isDeepStrictEqual } from 'node:util'
import { and, asc, eq, isNull, lte, sql } from 'drizzle-orm'
import { FEWEST_UNNAMED, keptAnswers, putIn, type ClosingAnswers } from '#core/closing/questions'
import { resultOf, type QuestionResult } from '#core/closing/results'
import { isStaff, nothingHere, notYours, requireMayWrite, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, closingAnswers, closingSurveys, enrolments, persons } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { participants } from '#server/services/contributing/records'
import { localTime } from '#core/planning/localTime'
import { tell } from '#server/services/messaging/notices'
import { loadPlan } from '#server/services/planning/activityPlan'
import { isSpeaking } from '#server/services/people/silence'
import type { ClosingSet, ClosingView } from '#shared/closing/closing'

type ClosingSurvey = typeof closingSurveys.$inferSelect

export const stateOf = (
  survey: Pick<ClosingSurvey, 'opensAt' | 'closesAt'> | undefined,
  now: Date,
): ClosingView['state'] => {
  if (!survey) return 'none'
  if (now < survey.opensAt) return 'planned'
  if (now < survey.closesAt) return 'open'
  return 'closed'
}
const STAY_CLOSED = 'So that nobody is known by an answer that comes alone, they do not open again.'
/** Whether questions stay closed: answers without names came in, and may have been read. */
const isFinal = (survey: ClosingSurvey, given: number, now: Date): boolean =>
  !survey.named && given > 0 && now >= survey.closesAt
const surveyOf = async (db: Db, activityId: string, lock = false): Promise<ClosingSurvey | undefined> => {
  const query = db.select().from(closingSurveys).where(eq(closingSurveys.activityId, activityId))
  return (lock ? await query.for('update') : await query)[0]
}

/** The questions as their reader may have them: a student answers, staff see what came in. */
export async function readClosing(db: Db, actor: ActivityActor, now: Date): Promise<ClosingView> {
  const { activity, enrolment } = actor
  const [plan, survey] = await Promise.all([loadPlan(db, activity), surveyOf(db, activity.id)])
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
  }
  const asked = survey && {
    // a copy may be changed: the types of what is stored are read-only, those of the contract are not
    questions: structuredClone(survey.questions) as never,
    named: survey.named,
    opensAt: survey.opensAt.toISOString(),
    closesAt: survey.closesAt.toISOString(),
    version: survey.version,
  }
  if (!staff) {
    if (!survey || state === 'planned' || enrolment.role === 'observer') throw nothingHere()
    return { ...head, round: asked!, mine: await ownAnswers(db, survey, enrolment.id), staff: null }
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
        results: null,
        why: null,
        people: [],
      },
    }
  const { results, why, answered, people } = await resultsOf(db, survey, now)
  const meant = (await participants(db, activity)).filter(plan.isMeant).length
  return {
    ...head,
    round: asked!,
    mine: null,
    staff: {
      asked: meant,
      answered,
      mayChange: enrolment.role === 'instructor' && answered === 0,
      isFinal: isFinal(survey, answered, now),
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
    .where(and(eq(closingAnswers.activityId, survey.activityId), eq(closingAnswers.enrolmentId, enrolmentId)))
  return {
    answered: own !== undefined,
    answers: structuredClone(own?.answers ?? {}) as never /* a copy, see above */,
  }
}

interface Results {
  readonly results: QuestionResult[] | null
  readonly why: string | null
  readonly answered: number
  readonly people: ReadonlyArray<{
    readonly id: string
    readonly name: string
    readonly answers: ClosingAnswers
  }>
}

/**
 * What came in. Without names nothing is shown before it has closed, or of fewer than a few: watching one answer come
 * after another, or knowing who took part, would tell whose they are.
 */
export async function resultsOf(db: Db, survey: ClosingSurvey, now: Date): Promise<Results> {
  if (!survey.named) {
    const answered = survey.takers.length
    const findWhy = () => {
      if (now < survey.closesAt)
        return 'As names are not kept, answers are shown once it has closed: one that came alone would have a face.'
      if (answered < FEWEST_UNNAMED)
        return `Fewer than ${FEWEST_UNNAMED} have answered. So that nobody is known by their answer, none is shown.`
      return null
    }
    const why = findWhy()
    return {
      results: why ? null : survey.questions.map(q => resultOf(q, survey.urns[q.id] ?? [])),
      why,
      answered,
      people: [],
    }
  }
  const rows = await db
    .select({ id: closingAnswers.enrolmentId, name: persons.name, answers: closingAnswers.answers })
    .from(closingAnswers)
    .innerJoin(enrolments, eq(enrolments.id, closingAnswers.enrolmentId))
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(eq(closingAnswers.activityId, survey.activityId))
    .orderBy(asc(persons.familyName), asc(persons.givenName))
  return {
    results: survey.questions.map(q =>
      resultOf(
        q,
        rows.flatMap(r => (q.id in r.answers ? [r.answers[q.id]!] : [])),
      ),
    ),
    why: null,
    answered: rows.length,
    people: rows,
  }
}

/** Sets the questions. With the first answer they stand as they are: only the end can still be moved. */
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
    const survey = await surveyOf(tx, actor.activity.id, true)
    if ((survey?.version ?? null) !== write.baseVersion)
      throw new Problem(
        409,
        'changed',
        'Somebody has changed these questions meanwhile. What you typed is kept; look at what is stored now.',
        { theirs: survey && { questions: survey.questions } },
      )
    const given = survey
      ? survey.takers.length +
        (await tx.$count(closingAnswers, eq(closingAnswers.activityId, survey.activityId)))
      : 0
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
      .values({ activityId: actor.activity.id, seminarId: actor.activity.seminarId, ...values })
      .onConflictDoUpdate({
        target: closingSurveys.activityId,
        set: { ...values, version: sql`${closingSurveys.version} + 1` },
      })
    return readClosing(tx, actor, now)
  })
}

export function removeClosing(db: Database, actor: ActivityActor): Promise<{ removed: true }> {
  return db.transaction(async tx => {
    const survey = await surveyOf(tx, actor.activity.id, true)
    if (!survey) throw nothingHere()
    if (
      survey.takers.length +
        (await tx.$count(closingAnswers, eq(closingAnswers.activityId, survey.activityId))) >
      0
    )
      throw new Problem(
        409,
        'answered',
        'Somebody has answered already: the questions stay. You can end them now.',
      )
    await tx.delete(closingSurveys).where(eq(closingSurveys.activityId, actor.activity.id))
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
    const [plan, survey] = await Promise.all([loadPlan(tx, activity), surveyOf(tx, activity.id, true)])
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
          seminarId: activity.seminarId,
          enrolmentId: enrolment.id,
          answers,
          handedInAt: now,
        })
        .onConflictDoUpdate({
          target: [closingAnswers.activityId, closingAnswers.enrolmentId],
          set: { answers, handedInAt: now },
        })
    else if (!survey.takers.includes(enrolment.id))
      await tx
        .update(closingSurveys)
        .set({ takers: [...survey.takers, enrolment.id].sort(), urns: putIn(survey.urns, answers) })
        .where(eq(closingSurveys.activityId, activity.id))
    return readClosing(tx, actor, now)
  })
}

/** Tells students of questions that have opened. @returns of how many activities */
export function notifyOfClosing(db: Database, now: Date): Promise<number> {
  return db.transaction(async tx => {
    const rows = await tx
      .select({ survey: closingSurveys, activity: activities })
      .from(closingSurveys)
      .innerJoin(activities, eq(activities.id, closingSurveys.activityId))
      .where(
        and(
          isNull(closingSurveys.toldAt),
          isSpeaking(activities.seminarId),
          lte(closingSurveys.opensAt, now),
          eq(activities.state, 'published'),
        ),
      )
      .for('update', { of: closingSurveys, skipLocked: true })
    for (const { survey, activity } of rows) {
      await tx.update(closingSurveys).set({ toldAt: now }).where(eq(closingSurveys.activityId, activity.id))
      if (now >= survey.closesAt) continue
      const plan = await loadPlan(tx, activity)
      const people = (await participants(tx, activity)).filter(plan.isMeant).map(s => s.enrolmentId)
      await tell(
        tx,
        people,
        {
          kind: 'closing',
          activityId: activity.id,
          text: `“${activity.title}”: a few closing questions.`,
          detail: survey.named
            ? 'Your name is kept with your answers.'
            : 'Names are not kept: nobody can tell whose an answer is.',
        },
        seminarId => `/seminars/${seminarId}/activities/${activity.id}/closing`,
        now,
      )
    }
    return rows.length
  })
}
