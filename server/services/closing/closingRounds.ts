import { isDeepStrictEqual } from 'node:util'
import { and, asc, eq, isNull, lte, sql } from 'drizzle-orm'
import { FEWEST_UNNAMED, keptAnswers, putIn, type ClosingAnswers } from '#core/closing/questions'
import { resultOf, type QuestionResult } from '#core/closing/results'
import { isStaff, nothingHere, notYours, requireMayWrite, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, closingAnswers, closingRounds, enrolments, persons } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { participants } from '#server/services/contributing/records'
import { localTime } from '#core/planning/localTime'
import { tell } from '#server/services/messaging/notices'
import { loadPlan } from '#server/services/planning/activityPlan'
import type { ClosingSet, ClosingView } from '#shared/closing/closing'

type Round = typeof closingRounds.$inferSelect

export const stateOf = (
  round: Pick<Round, 'opensAt' | 'closesAt'> | undefined,
  now: Date,
): ClosingView['state'] => {
  if (!round) return 'none'
  if (now < round.opensAt) return 'planned'
  if (now < round.closesAt) return 'open'
  return 'closed'
}
const roundOf = async (db: Db, activityId: string, lock = false): Promise<Round | undefined> => {
  const query = db.select().from(closingRounds).where(eq(closingRounds.activityId, activityId))
  return (lock ? await query.for('update') : await query)[0]
}

/** The questions as their reader may have them: a student answers, staff see what came in. */
export async function readClosing(db: Db, actor: ActivityActor, now: Date): Promise<ClosingView> {
  const { activity, enrolment } = actor
  const [plan, round] = await Promise.all([loadPlan(db, activity), roundOf(db, activity.id)])
  const state = stateOf(round, now)
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
  const asked = round && {
    // a copy may be changed: the types of what is stored are read-only, those of the contract are not
    questions: structuredClone(round.questions) as never,
    named: round.named,
    opensAt: round.opensAt.toISOString(),
    closesAt: round.closesAt.toISOString(),
    version: round.version,
  }
  if (!staff) {
    if (!round || state === 'planned' || enrolment.role === 'observer') throw nothingHere()
    return { ...head, round: asked!, mine: await ownAnswers(db, round, enrolment.id), staff: null }
  }
  if (!round)
    return {
      ...head,
      round: null,
      mine: null,
      staff: {
        asked: 0,
        answered: 0,
        mayChange: enrolment.role === 'instructor',
        results: null,
        why: null,
        people: [],
      },
    }
  const { results, why, answered, people } = await resultsOf(db, round, now)
  const meant = (await participants(db, activity)).filter(plan.isMeant).length
  return {
    ...head,
    round: asked!,
    mine: null,
    staff: {
      asked: meant,
      answered,
      mayChange: enrolment.role === 'instructor' && answered === 0,
      results: structuredClone(results) as never, // a copy, see above
      why,
      people: people.map(p => ({
        ...p,
        answers: structuredClone(p.answers) as never /* a copy, see above */,
      })),
    },
  }
}

async function ownAnswers(db: Db, round: Round, enrolmentId: string): Promise<ClosingView['mine']> {
  if (!round.named) return { answered: round.takers.includes(enrolmentId), answers: {} }
  const [own] = await db
    .select()
    .from(closingAnswers)
    .where(and(eq(closingAnswers.activityId, round.activityId), eq(closingAnswers.enrolmentId, enrolmentId)))
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
export async function resultsOf(db: Db, round: Round, now: Date): Promise<Results> {
  if (!round.named) {
    const answered = round.takers.length
    const findWhy = () => {
      if (now < round.closesAt)
        return 'As names are not kept, answers are shown once it has closed: one that came alone would have a face.'
      if (answered < FEWEST_UNNAMED)
        return `Fewer than ${FEWEST_UNNAMED} have answered. So that nobody is known by their answer, none is shown.`
      return null
    }
    const why = findWhy()
    return {
      results: why ? null : round.questions.map(q => resultOf(q, round.urns[q.id] ?? [])),
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
    .where(eq(closingAnswers.activityId, round.activityId))
    .orderBy(asc(persons.familyName), asc(persons.givenName))
  return {
    results: round.questions.map(q =>
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
    const round = await roundOf(tx, actor.activity.id, true)
    if ((round?.version ?? null) !== write.baseVersion)
      throw new Problem(
        409,
        'changed',
        'Somebody has changed these questions meanwhile. What you typed is kept; look at what is stored now.',
        { theirs: round && { questions: round.questions } },
      )
    const given = round
      ? round.takers.length +
        (await tx.$count(closingAnswers, eq(closingAnswers.activityId, round.activityId)))
      : 0
    if (
      round &&
      given > 0 &&
      (round.named !== write.named ||
        !isDeepStrictEqual(round.questions, write.questions) ||
        opensAt.getTime() !== round.opensAt.getTime())
    )
      throw new Problem(
        409,
        'answered',
        'Somebody has answered already, so the questions and the promise about names stand as they are. The end can still be moved.',
      )
    const values = { questions: write.questions, named: write.named, opensAt, closesAt }
    await tx
      .insert(closingRounds)
      .values({ activityId: actor.activity.id, seminarId: actor.activity.seminarId, ...values })
      .onConflictDoUpdate({
        target: closingRounds.activityId,
        set: { ...values, version: sql`${closingRounds.version} + 1` },
      })
    return readClosing(tx, actor, now)
  })
}

export function removeClosing(db: Database, actor: ActivityActor): Promise<{ removed: true }> {
  return db.transaction(async tx => {
    const round = await roundOf(tx, actor.activity.id, true)
    if (!round) throw nothingHere()
    if (
      round.takers.length +
        (await tx.$count(closingAnswers, eq(closingAnswers.activityId, round.activityId))) >
      0
    )
      throw new Problem(
        409,
        'answered',
        'Somebody has answered already: the questions stay. You can end them now.',
      )
    await tx.delete(closingRounds).where(eq(closingRounds.activityId, actor.activity.id))
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
    const [plan, round] = await Promise.all([loadPlan(tx, activity), roundOf(tx, activity.id, true)])
    const state = stateOf(round, now)
    if (!round || state === 'planned') throw nothingHere()
    if (state === 'closed')
      throw new Problem(
        409,
        'closed',
        `These questions closed ${localTime(round.closesAt, actor.seminar.timeZone)}. Nothing more is taken.`,
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
    const answers = keptAnswers(round.questions, given)
    if (Object.keys(answers).length === 0)
      throw refusedField('answers', 'empty', 'Nothing is answered yet. Answer one question at least.')
    if (round.named)
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
    else if (!round.takers.includes(enrolment.id))
      await tx
        .update(closingRounds)
        .set({ takers: [...round.takers, enrolment.id].sort(), urns: putIn(round.urns, answers) })
        .where(eq(closingRounds.activityId, activity.id))
    return readClosing(tx, actor, now)
  })
}

/** Tells students of questions that have opened. @returns of how many activities */
export function tellClosing(db: Database, now: Date): Promise<number> {
  return db.transaction(async tx => {
    const rows = await tx
      .select({ round: closingRounds, activity: activities })
      .from(closingRounds)
      .innerJoin(activities, eq(activities.id, closingRounds.activityId))
      .where(
        and(isNull(closingRounds.toldAt), lte(closingRounds.opensAt, now), eq(activities.state, 'published')),
      )
      .for('update', { of: closingRounds, skipLocked: true })
    for (const { round, activity } of rows) {
      await tx.update(closingRounds).set({ toldAt: now }).where(eq(closingRounds.activityId, activity.id))
      if (now >= round.closesAt) continue
      const plan = await loadPlan(tx, activity)
      const people = (await participants(tx, activity)).filter(plan.isMeant).map(s => s.enrolmentId)
      await tell(
        tx,
        people,
        {
          kind: 'closing',
          activityId: activity.id,
          text: `“${activity.title}”: a few closing questions.`,
          detail: round.named
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
