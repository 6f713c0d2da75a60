import { and, eq, inArray } from 'drizzle-orm'
import type { ActivityActor, ActivityRow, Enrolment } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions } from '#server/database/schema'
import { aliasesOfEach, aliasKey } from './aliases'
import { discussionGroupsOfEach } from './discussionGroups'
import { openedByOwn, shapeForReader } from './shapeForReader'
import { storedContributions, type StoredContribution } from './storedContributions'

/** One contribution, if the reader gets it: the same decision as for the whole thread. `name` is what its author goes by for the reader. */
export async function readable(
  db: Db,
  { activity, enrolment }: Pick<ActivityActor, 'activity' | 'enrolment'>,
  id: string,
  now: Date,
): Promise<{ readonly row: StoredContribution; readonly name: string } | null> {
  const { rows, views, aliases } = await readableOf(db, { activity, enrolment }, [id], now)
  const [row, view] = [rows[0], views[0]]
  if (!row || !view) return null
  // a withdrawn text's place is there, and says whose it was only to those who may know
  return {
    row,
    name:
      view.view === 'whole'
        ? view.author.givenName
        : (aliases.get(aliasKey(row.threadId, row.authorId))?.name ?? row.givenName),
  }
}

/** Some contributions as the reader gets them, without loading the thread they are in. */
export async function readableOf(
  db: Db,
  { activity, enrolment }: Pick<ActivityActor, 'activity' | 'enrolment'>,
  ids: readonly string[],
  now: Date,
) {
  const [only] = await readableIn(db, enrolment, [{ activity, ids }], now)
  return only!
}

/** Some contributions of several activities as the reader gets them, activity by activity in the order asked for. */
export async function readableIn(
  db: Db,
  enrolment: Enrolment,
  asked: ReadonlyArray<{ readonly activity: ActivityRow; readonly ids: readonly string[] }>,
  now: Date,
) {
  if (asked.length === 0) return []
  const activities = asked.map(a => a.activity)
  const here = activities.map(a => a.id)
  const wanted = asked.flatMap(a => a.ids)
  const stored = await storedContributions(db, here, enrolment.id, { ids: wanted, bodies: false })
  const byId = new Map(stored.map(row => [row.id, row]))
  const threads = [...new Set(stored.map(r => r.threadId))].filter(id => !byId.has(id))
  const each = asked.map(({ activity, ids }) => {
    const isIn = new Set(ids)
    return { activity, ids: isIn, rows: stored.filter(r => isIn.has(r.id)) }
  })
  const [chain, own, aliases, discussionGroups] = await Promise.all([
    storedContributions(db, here, enrolment.id, { ids: threads, bodies: false }),
    db
      .select({
        activityId: contributions.activityId,
        authorId: contributions.authorId,
        state: contributions.state,
        type: contributions.type,
        promptId: contributions.promptId,
        detail: contributions.detail,
      })
      .from(contributions)
      .where(
        and(
          inArray(contributions.activityId, here),
          eq(contributions.authorId, enrolment.id),
          eq(contributions.state, 'shown'),
        ),
      ),
    aliasesOfEach(db, each),
    discussionGroupsOfEach(db, activities),
  ])
  return each.map(({ activity, ids, rows }) => {
    const reader = { activity, enrolment, seenSeq: null, now }
    const { contributions: views } = shapeForReader(rows, reader, {
      aliases,
      discussionGroups: discussionGroups.get(activity.id) ?? null,
      files: new Map(),
      roots: new Map(chain.map(r => [r.id, r])),
      ownIn: openedByOwn(
        own.filter(c => c.activityId === activity.id),
        reader,
      ),
      answered: ids, // whoever asks for one stands at it: its place is there, withdrawn or not
    })
    return { activityId: activity.id, rows, views, aliases }
  })
}
