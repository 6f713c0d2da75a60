import { stringify } from 'csv-stringify/sync'
import { safeCell } from '#core/marking/results/safeCell'
import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import type { VoicesQuery } from '#shared/voices/voices'
import { readVoices } from './readVoices'

const HOUR = 3_600_000
const rounded = (n: number | null, digits: number): number | null =>
  n === null ? null : Number(n.toFixed(digits))

/** The table of all measures to take away, one student a line; what is not known is left empty. */
export async function exportVoices(
  db: Db,
  actor: Actor,
  query: VoicesQuery,
  now: Date,
): Promise<{ readonly name: string; readonly type: string; readonly bytes: Buffer }> {
  const view = await readVoices(db, actor, query, now)
  const rows = view.people.map(p => ({
    'family name': safeCell(p.familyName),
    'given name': safeCell(p.givenName),
    contributions: p.contributions,
    words: p.words,
    'words per contribution': rounded(p.wordsEach, 1),
    'words per sentence': rounded(p.sentenceLength, 1),
    'reading ease': rounded(p.ease, 1),
    'days active': p.daysActive,
    'first contribution against due (hours)': rounded(
      p.firstAgainstDue === null ? null : p.firstAgainstDue / HOUR,
      1,
    ),
    'median time to answer (hours)': rounded(p.medianToAnswer === null ? null : p.medianToAnswer / HOUR, 1),
    'deepest place in a thread': p.depth,
    'classmates answered': p.answered,
    'answered by': p.answeredBy,
    'answers received': p.answersGot,
    'share of contributions answered': rounded(p.shareAnswered, 3),
    'answered back': rounded(p.reciprocity, 3),
    'stands between others': rounded(p.between, 4),
    ...(view.activity ? { 'expectations met': p.met, expectations: p.asked } : {}),
    'substantive words from you': p.fromMe.acts,
    'last of them': p.fromMe.lastAt?.slice(0, 10) ?? null,
    'longest time without (days)': p.fromMe.longestGapDays,
  }))
  const scopeWords = () => {
    if (query.among) return `${query.among.length} activities `
    if (query.kind) return `${query.kind} `
    return ''
  }
  const base =
    `${actor.seminar.code} voices ${view.activity?.title ?? `${scopeWords()}weeks ${view.from} to ${view.to}`}`
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim()
  return {
    name: `${base}.csv`,
    type: 'text/csv; charset=utf-8',
    bytes: Buffer.from(`\uFEFF${stringify(rows, { header: true })}`),
  }
}
