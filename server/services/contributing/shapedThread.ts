import { and, eq, inArray, ne, sql } from 'drizzle-orm'
import type { ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions, visits } from '#server/database/schema'
import { aliasesOf } from './aliases'
import { discussionGroupsOf } from './discussionGroups'
import { readableOf } from './readable'
import { hooksOf } from './kindHooks'
import { shapeForReader } from './shapeForReader'
import { attachedFiles, storedContributions } from './storedContributions'

/** What a reader gets of an activity's contributions: what feeds, exports and finding are made of, too. */
export async function shapedThread(
  db: Db,
  { activity, enrolment }: Pick<ActivityActor, 'activity' | 'enrolment'>,
  now: Date,
  bodies = true,
) {
  const [rows, [visit], files] = await Promise.all([
    storedContributions(db, activity.id, enrolment.id, { bodies }),
    db
      .select()
      .from(visits)
      .where(and(eq(visits.activityId, activity.id), eq(visits.enrolmentId, enrolment.id))),
    attachedFiles(db, { activityId: activity.id }),
  ])
  const [aliases, discussionGroups] = await Promise.all([
    aliasesOf(db, activity, rows),
    discussionGroupsOf(db, activity),
  ])
  const shaped = shapeForReader(
    rows,
    { activity, enrolment, seenSeq: visit?.seenSeq ?? null, now },
    {
      aliases,
      discussionGroups,
      files,
      handInUntil: (await hooksOf(activity.kind).changeUntil?.(db, { activity, enrolment })) ?? null,
    },
  )
  return {
    ...shaped,
    discussionGroups,
    closedThreads: rows.flatMap(r => (r.closedToWords ? [r.id] : [])),
    heard: new Set(rows.filter(r => r.state === 'shown').map(r => r.authorId)),
    isStaff: enrolment.role === 'instructor' || enrolment.role === 'assistant',
  }
}

/** The words of some contributions, to somebody who may read them: the same decision as for the thread. */
export async function readTexts(
  db: Db,
  actor: ActivityActor,
  ids: readonly string[],
  now: Date,
): Promise<{ texts: Array<{ id: string; html: string }> }> {
  const { views } = await readableOf(db, actor, ids, now)
  return {
    texts: await textsOf(
      db,
      views.flatMap(v => (v.view === 'whole' ? [v.id] : [])),
    ),
  }
}

/** Contributions that hold the words, among those the reader gets anyway. */
export async function findInTalk(
  db: Db,
  actor: ActivityActor,
  words: string,
  now: Date,
): Promise<{ ids: string[] }> {
  const { contributions: views } = await shapedThread(db, actor, now, false)
  const readable = new Set(views.flatMap(v => (v.view === 'whole' && !v.withdrawn ? [v.id] : [])))
  const query = sql`websearch_to_tsquery('english', ${words})`
  const hits = await db
    .select({ id: contributions.id })
    .from(contributions)
    .where(
      and(
        eq(contributions.activityId, actor.activity.id),
        ne(contributions.state, 'draft'),
        sql`(to_tsvector('english', ${contributions.text}) @@ ${query} or ${contributions.text} ilike ${`%${words.replace(/[\\%_]/g, '\\$&')}%`})`,
      ),
    )
    .orderBy(contributions.seq)
  return { ids: hits.map(h => h.id).filter(id => readable.has(id)) }
}

/** The words of contributions, whoever asks. */
export async function textsOf(db: Db, ids: readonly string[]): Promise<Array<{ id: string; html: string }>> {
  return ids.length === 0
    ? []
    : db
        .select({ id: contributions.id, html: contributions.html })
        .from(contributions)
        .where(inArray(contributions.id, [...ids]))
}
