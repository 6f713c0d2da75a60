import { asc, eq } from 'drizzle-orm'
import { FEWEST_UNNAMED, type ClosingAnswers } from '#core/closing/questions'
import { resultOf, type QuestionResult } from '#core/closing/results'
import type { Db } from '#server/database/client'
import { closingAnswers, enrolments } from '#server/database/schema'
import { answersIn, type ClosingSurvey } from './closingRounds'

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
        return 'As names are not kept, answers are shown once it has closed: a single one would show whose it is.'
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
    .select({ id: closingAnswers.enrolmentId, name: enrolments.name, answers: closingAnswers.answers })
    .from(closingAnswers)
    .innerJoin(enrolments, eq(enrolments.id, closingAnswers.enrolmentId))
    .where(answersIn(survey))
    .orderBy(asc(enrolments.familyName), asc(enrolments.givenName))
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
