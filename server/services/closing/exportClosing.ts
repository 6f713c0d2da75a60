import { and, desc, eq } from 'drizzle-orm'
import { stringify } from 'csv-stringify/sync'
import type { ClosingAnswer, ClosingQuestion } from '#core/closing/questions'
import { safeCell } from '#core/marking/results/safeCell'
import { nothingHere, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { closingSurveys } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { resultsOf } from './closingResults'

const words = (q: ClosingQuestion, a: ClosingAnswer | undefined): string | number => {
  if (a === undefined) return ''
  if (q.kind === 'choice') return (a as readonly number[]).map(i => q.options[i]).join('; ')
  return a as string | number
}

/**
 * Answers to take away, of the last round unless another is asked for: with names a line for each student; without, what
 * each question got, in no order that tells anything.
 */
export async function exportClosing(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  now: Date,
  round?: number,
): Promise<{ readonly name: string; readonly type: string; readonly bytes: Buffer }> {
  const [survey] = await db
    .select()
    .from(closingSurveys)
    .where(
      and(
        eq(closingSurveys.activityId, actor.activity.id),
        round === undefined ? undefined : eq(closingSurveys.round, round),
      ),
    )
    .orderBy(desc(closingSurveys.round))
    .limit(1)
  if (!survey) throw nothingHere()
  const { results, why, people } = await resultsOf(db, survey, now)
  if (!results) throw new Problem(409, 'hidden', why!)
  const rows = survey.named
    ? [
        ['student', ...survey.questions.map(q => safeCell(q.text))],
        ...people.map(p => [
          safeCell(p.name),
          ...survey.questions.map(q => {
            const w = words(q, p.answers[q.id])
            return typeof w === 'string' ? safeCell(w) : w
          }),
        ]),
      ]
    : [
        ['question', 'answer', 'times'],
        ...survey.questions.flatMap((q, i): Array<Array<string | number>> => {
          const r = results[i]!
          if (r.kind === 'open') return r.answers.map(a => [safeCell(q.text), safeCell(a), 1])
          return r.counts.map((n, step) => [
            safeCell(q.text),
            q.kind === 'choice' ? safeCell(q.options[step]!) : step + 1,
            n,
          ])
        }),
      ]
  const title = actor.activity.title.replace(/[^\p{L}\p{N}]+/gu, ' ').trim()
  const number = survey.round > 1 ? ` ${survey.round}` : ''
  return {
    name: `${title} closing questions${number}.csv`,
    type: 'text/csv; charset=utf-8',
    bytes: Buffer.from(`\uFEFF${stringify(rows)}`),
  }
}
