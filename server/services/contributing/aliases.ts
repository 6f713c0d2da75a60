import { inArray } from 'drizzle-orm'
import { randomInt, randomUUID } from 'node:crypto'
import { drawAlias } from '#core/contributing/drawAlias'
import { talkOf } from '#core/contributing/talkSettings'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { aliases } from '#server/database/schema'
import { slicesOf } from '#server/database/slices'

export interface Alias {
  readonly id: string
  readonly name: string
}
export type Aliases = ReadonlyMap<string, Alias> // by thread and author
export const aliasKey = (threadId: string, authorId: string): string => `${threadId}:${authorId}`

interface Named {
  readonly threadId: string
  readonly authorId: string
}
interface Authored extends Named {
  readonly role: string
}
type ActivityId = Pick<ActivityRow, 'id' | 'seminarId'>

const TRIES = 5

/**
 * What students of an activity go by in each of its threads; empty where names are shown. Names are given as people come to
 * write (`prepareActivities`), at random: neither name nor id says who came first.
 */
export const aliasesOf = (db: Db, activity: ActivityRow, rows: readonly Authored[]): Promise<Aliases> =>
  aliasesOfEach(db, [{ activity, rows }])

/** The same of several activities at once. */
export async function aliasesOfEach(
  db: Db,
  all: ReadonlyArray<{ readonly activity: ActivityRow; readonly rows: readonly Authored[] }>,
): Promise<Aliases> {
  const hidden = all.filter(({ activity }) => talkOf(activity.settings).namesHidden)
  if (hidden.length === 0) return new Map()
  const students = hidden.flatMap(({ rows }) => rows.filter(r => r.role === 'student'))
  return withDrawn(
    await storedAliases(
      db,
      hidden.map(({ activity }) => activity.id),
    ),
    students,
  )
}

/**
 * What people go by in threads, whatever is set. Whoever has not been given a name yet goes by one that is not kept: so it
 * is with an empty draft, which its author alone sees.
 */
export async function aliasesFor(db: Db, { id }: ActivityId, rows: readonly Named[]): Promise<Aliases> {
  return withDrawn(await storedAliases(db, [id]), rows)
}

function withDrawn(stored: Parameters<typeof drawMissing>[0], rows: readonly Named[]): Aliases {
  const { known, drawn } = drawMissing(stored, rows)
  for (const { threadId, enrolmentId, name } of drawn)
    known.set(aliasKey(threadId, enrolmentId), { id: randomUUID(), name })
  return known
}

/** Gives a name, drawn at random, to whoever has none yet in a thread. */
export async function giveAliases(tx: Db, activity: ActivityId, rows: readonly Named[]): Promise<void> {
  for (let left = TRIES; left > 0; left--) {
    const { drawn } = drawMissing(await storedAliases(tx, [activity.id]), rows)
    if (drawn.length === 0) return
    // somebody else may have named them at the same moment: theirs holds, and the loop looks again
    for (const some of slicesOf(drawn))
      await tx
        .insert(aliases)
        .values(some.map(a => ({ ...a, seminarId: activity.seminarId, activityId: activity.id })))
        .onConflictDoNothing()
  }
}

const storedAliases = (db: Db, activityIds: readonly string[]) =>
  db
    .select()
    .from(aliases)
    .where(inArray(aliases.activityId, [...activityIds]))

/** Whoever has no name yet, each with one that nobody has in its thread. */
function drawMissing(stored: ReadonlyArray<typeof aliases.$inferSelect>, rows: readonly Named[]) {
  const known = new Map(stored.map(a => [aliasKey(a.threadId, a.enrolmentId), { id: a.id, name: a.name }]))
  const taken = new Map<string, Set<string>>()
  for (const a of stored) taken.set(a.threadId, (taken.get(a.threadId) ?? new Set()).add(a.name))
  const wanted = new Map(rows.map(r => [aliasKey(r.threadId, r.authorId), r]))
  // in one order, so that two who name the same people wait for one another and not each for the other
  const missing = [...wanted.keys()]
    .filter(key => !known.has(key))
    .sort()
    .map(key => wanted.get(key)!)
  const drawn = missing.map(({ threadId, authorId }) => {
    const names = taken.get(threadId) ?? new Set<string>()
    const name = drawAlias(names, () => randomInt(2 ** 32) / 2 ** 32)
    taken.set(threadId, names.add(name))
    return { threadId, enrolmentId: authorId, name }
  })
  return { known, drawn }
}
