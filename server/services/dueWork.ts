import { and, desc, eq, sql, type SQL } from 'drizzle-orm'
import type { PgColumn } from 'drizzle-orm/pg-core'
import type { Db } from '#server/database/client'
import { databaseFailure } from '#server/database/failure'
import { dueFailures, seminars } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { loggable, logError } from '#server/log'
import type { DueFailures, DueTask } from '#shared/people/dueFailures'

/** Something whose time has come. */
export interface DueItem {
  readonly id: string
  readonly seminarId: string
}
const MINUTE = 60_000 // milliseconds
/** Minutes between two tries at the most: what people have to settle first is looked at again sooner. */
const LONGEST_WAIT = { fault: 60, unsettled: 8 }
const MOST_SHOWN = 200

/** The condition that something is not waiting for its next try after it could not be done. */
export const mayBeTried = (task: DueTask, id: PgColumn, now: Date): SQL =>
  sql`not exists (select 1 from due_failures waiting where waiting.task = ${task} and waiting.subject_id = ${id}
    and waiting.next_at > ${now.toISOString()}::timestamptz)`

/**
 * Does what is due, each item in a transaction of its own: one that fails is kept with its reason and tried again later and
 * later, and holds nobody else's up. `act` looks again whether there is something to do, because another process may have
 * done it since, and says how much it did.
 *
 * @returns how much was done
 * @throws where the database is away: then nothing else can be done either
 */
export async function doEach<Item extends DueItem>(
  db: Db,
  task: DueTask,
  items: readonly Item[],
  now: Date,
  act: (tx: Db, item: Item) => Promise<number>,
): Promise<number> {
  if (items.length === 0) return 0
  const failing = await db
    .select({ id: dueFailures.subjectId })
    .from(dueFailures)
    .where(eq(dueFailures.task, task))
  const hasFailed = new Set(failing.map(f => f.id))
  let done = 0
  for (const item of items)
    try {
      done += await db.transaction(async tx => {
        const n = await act(tx, item)
        if (hasFailed.has(item.id)) await tx.delete(dueFailures).where(isOf(task, item))
        return n
      })
    } catch (error) {
      if (databaseFailure(error) === 'away') throw error
      await note(db, task, item, error, now)
    }
  return done
}

const isOf = (task: DueTask, { id }: DueItem) =>
  and(eq(dueFailures.task, task), eq(dueFailures.subjectId, id))

async function note(db: Db, task: DueTask, item: DueItem, error: unknown, now: Date): Promise<void> {
  // what people have to settle first is no fault of the program
  const isUnsettled = error instanceof Problem
  const reason = isUnsettled ? error.code : (loggable(error).code ?? loggable(error).name)
  const most = isUnsettled ? LONGEST_WAIT.unsettled : LONGEST_WAIT.fault
  if (!isUnsettled) logError('dueWork', error, { what: task, subject: item.id })
  const next = (tries: number) => new Date(now.getTime() + Math.min(2 ** tries, most) * MINUTE)
  const [known] = await db.select().from(dueFailures).where(isOf(task, item))
  const tries = (known?.tries ?? 0) + 1
  const again = { reason, tries, lastAt: now, nextAt: next(tries) }
  await db
    .insert(dueFailures)
    .values({ task, subjectId: item.id, seminarId: item.seminarId, firstAt: now, ...again })
    .onConflictDoUpdate({ target: [dueFailures.task, dueFailures.subjectId], set: again })
}

/** What could not be done, the last one first. */
export async function readDueFailures(db: Db): Promise<DueFailures> {
  const rows = await db
    .select({ failure: dueFailures, seminar: seminars.title })
    .from(dueFailures)
    .innerJoin(seminars, eq(seminars.id, dueFailures.seminarId))
    .orderBy(desc(dueFailures.lastAt))
    .limit(MOST_SHOWN)
  return {
    failures: rows.map(
      ({ failure: { task, subjectId, reason, tries, firstAt, lastAt, nextAt }, seminar }) => ({
        ...{ task, subjectId, seminar, reason, tries },
        firstAt: firstAt.toISOString(),
        lastAt: lastAt.toISOString(),
        nextAt: nextAt.toISOString(),
      }),
    ),
  }
}
