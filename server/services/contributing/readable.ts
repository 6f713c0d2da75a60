import { and, eq } from 'drizzle-orm'
import { type ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions } from '#server/database/schema'
import { aliasesOf, aliasKey } from './aliases'
import { discussionGroupsOf } from './discussionGroups'
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
  const rows = await storedContributions(db, activity.id, enrolment.id, { ids, bodies: false })
  const threads = [...new Set(rows.map(r => r.threadId))].filter(id => !rows.some(r => r.id === id))
  const [chain, own] = await Promise.all([
    storedContributions(db, activity.id, enrolment.id, { ids: threads, bodies: false }),
    db
      .select({
        authorId: contributions.authorId,
        state: contributions.state,
        type: contributions.type,
        promptId: contributions.promptId,
        detail: contributions.detail,
      })
      .from(contributions)
      .where(
        and(
          eq(contributions.activityId, activity.id),
          eq(contributions.authorId, enrolment.id),
          eq(contributions.state, 'shown'),
        ),
      ),
  ])
  const reader = { activity, enrolment, seenSeq: null, now }
  const [aliases, discussionGroups] = await Promise.all([
    aliasesOf(db, activity, rows),
    discussionGroupsOf(db, activity),
  ])
  const { contributions: views } = shapeForReader(rows, reader, {
    aliases,
    discussionGroups,
    files: new Map(),
    roots: new Map(chain.map(r => [r.id, r])),
    ownIn: openedByOwn(own, reader),
    answered: new Set(ids), // whoever asks for one stands at it: its place is there, withdrawn or not
  })
  return { rows, views, aliases }
}
