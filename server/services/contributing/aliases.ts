import { eq } from 'drizzle-orm'
import { randomInt } from 'node:crypto'
import { drawAlias } from '#core/contributing/drawAlias'
import { talkOf } from '#core/contributing/talkSettings'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { aliases } from '#server/database/schema'

export interface Alias {
  readonly id: string
  readonly name: string
}
export type Aliases = ReadonlyMap<string, Alias> // by thread and author
export const aliasKey = (threadId: string, authorId: string): string => `${threadId}:${authorId}`

interface Authored {
  readonly threadId: string
  readonly authorId: string
  readonly role: string
}

/**
 * What students of an activity go by in each of its threads; empty where names are shown. Whoever has no name there yet is
 * given one at random: neither name nor id says who came first.
 */
export async function aliasesOf(db: Db, activity: ActivityRow, rows: readonly Authored[]): Promise<Aliases> {
  if (!talkOf(activity.settings).namesHidden) return new Map()
  return named(
    db,
    activity,
    rows.filter(r => r.role === 'student'),
  )
}

/** Names for people in threads, whatever is set: those there are, and one drawn at random for whoever has none yet. */
export async function named(
  db: Db,
  activity: Pick<ActivityRow, 'id' | 'seminarId'>,
  rows: ReadonlyArray<Pick<Authored, 'threadId' | 'authorId'>>,
): Promise<Aliases> {
  const wanted = new Map(rows.map(r => [aliasKey(r.threadId, r.authorId), r]))
  for (;;) {
    const stored = await db.select().from(aliases).where(eq(aliases.activityId, activity.id))
    const known = new Map(stored.map(a => [aliasKey(a.threadId, a.enrolmentId), { id: a.id, name: a.name }]))
    const missing = [...wanted].filter(([key]) => !known.has(key)).map(([, row]) => row)
    if (missing.length === 0) return known
    const taken = new Map<string, Set<string>>()
    for (const a of stored) taken.set(a.threadId, (taken.get(a.threadId) ?? new Set()).add(a.name))
    const drawn = missing.map(row => {
      const names = taken.get(row.threadId) ?? new Set<string>()
      const name = drawAlias(names, () => randomInt(2 ** 32) / 2 ** 32)
      taken.set(row.threadId, names.add(name))
      return {
        seminarId: activity.seminarId,
        activityId: activity.id,
        threadId: row.threadId,
        enrolmentId: row.authorId,
        name,
      }
    })
    // somebody else may have named them at the same moment: theirs holds, and the loop looks again
    await db.insert(aliases).values(drawn).onConflictDoNothing()
  }
}
