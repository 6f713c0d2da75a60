import { and, asc, eq, ne } from 'drizzle-orm'
import type { RichNode } from '#core/contributing/richText'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, enrolments } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { TaskEnded, ThreadPool } from '#server/threads/threadPool'
import type { LookAlikesView } from '#shared/contributing/lookAlikes'
import type { FoundPair, LookAlikeTasks, WrittenText } from './lookAlikesThread'

const LEAST = 0.2 // of the words of one of the two
const MOST = 20 // pairs told
const LONGEST = 60_000 // milliseconds

const pool = new ThreadPool<LookAlikeTasks>(() => new URL('./lookAlikesThread.ts', import.meta.url), {
  threads: 1,
  waiting: 10,
  megabytes: 1000,
})

/**
 * Pairs of contributions by different people that share wording, quotations and the brief's own words left
 * out. A hint, never a verdict.
 */
export async function findLookAlikes(
  db: Db,
  { activity }: Actor & { readonly activity: ActivityRow },
): Promise<LookAlikesView> {
  const rows = await db
    .select({
      id: contributions.id,
      authorId: contributions.authorId,
      author: enrolments.name,
      doc: contributions.doc,
      html: contributions.html,
      shownAt: contributions.shownAt,
    })
    .from(contributions)
    .innerJoin(enrolments, eq(enrolments.id, contributions.authorId))
    .where(
      and(
        eq(contributions.activityId, activity.id),
        eq(contributions.state, 'shown'),
        eq(enrolments.role, 'student'),
        ne(enrolments.state, 'practice'),
      ),
    )
    .orderBy(asc(contributions.seq))
  const own = new Map(rows.map(r => [r.id, r]))
  const pairs = await compare(
    rows.map(({ id, authorId, doc }) => ({ id, authorId, doc })),
    activity.starter ? [activity.brief, activity.starter] : [activity.brief],
  )
  return {
    pairs: pairs.map(({ first, second, ofFirst, ofSecond, passages }) => {
      const side = (id: string, share: number) => {
        const { author, shownAt, html } = own.get(id)!
        return { id, author, shownAt: shownAt!.toISOString(), html, share }
      }
      return { first: side(first, ofFirst), second: side(second, ofSecond), passages: [...passages] }
    }),
  }
}

async function compare(
  written: readonly WrittenText[],
  readings: readonly RichNode[],
): Promise<readonly FoundPair[]> {
  try {
    return await pool.run('compareTexts', [written, { least: LEAST, most: MOST, readings }], LONGEST)
  } catch (error) {
    if (!(error instanceof TaskEnded)) throw error
    throw new Problem(
      503,
      'tooSlow',
      'There is so much text here that comparing it took too long. Nothing was changed; try again when less is going on.',
    )
  }
}
