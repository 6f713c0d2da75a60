import { and, desc, eq, ilike, lt, or } from 'drizzle-orm'
import type { Database, Db } from '#server/database/client'
import { accessLog, persons, seminars } from '#server/database/schema'
import { LOGGED_ACTS, type AccessLog, type LoggedAct } from '#shared/people/accessLog'

const PAGE = 100
const KEPT = 400 * 86_400_000 // milliseconds
const LONGEST_ABOUT = 300 // characters

export interface LogEntry {
  readonly act: LoggedAct
  readonly done: boolean
  readonly personId: string | null
  readonly seminarId: string | null
  readonly about: string
  readonly client: string
}

export async function writeAccessLog(db: Db, entry: LogEntry): Promise<void> {
  await db.insert(accessLog).values({ ...entry, about: entry.about.slice(0, LONGEST_ABOUT) })
}

/** Entries from the newest on. @param asked.find words in names, addresses, titles of seminars or what it was about */
export async function readAccessLog(
  db: Db,
  asked: {
    readonly find: string
    readonly act?: LoggedAct | undefined
    readonly before?: string | undefined
  },
): Promise<AccessLog> {
  const words = `%${asked.find.replace(/[\\%_]/g, c => `\\${c}`)}%`
  const rows = await db
    .select({ entry: accessLog, who: persons.name, seminar: seminars.title })
    .from(accessLog)
    .leftJoin(persons, eq(persons.id, accessLog.personId))
    .leftJoin(seminars, eq(seminars.id, accessLog.seminarId))
    .where(
      and(
        asked.act ? eq(accessLog.act, asked.act) : undefined,
        asked.before ? lt(accessLog.id, asked.before) : undefined, // ids begin with their time
        asked.find
          ? or(
              ilike(persons.name, words),
              ilike(persons.email, words),
              ilike(seminars.title, words),
              ilike(accessLog.about, words),
              ilike(accessLog.client, words),
            )
          : undefined,
      ),
    )
    .orderBy(desc(accessLog.id))
    .limit(PAGE + 1)
  return {
    more: rows.length > PAGE,
    entries: rows
      .filter(r => r.entry.act in LOGGED_ACTS)
      .slice(0, PAGE)
      .map(({ entry, who, seminar }) => ({
        id: entry.id,
        at: entry.at.toISOString(),
        act: entry.act,
        done: entry.done,
        who,
        seminar,
        about: entry.about,
        client: entry.client,
      })),
  }
}

/** What is older than a year and a month. @returns how many entries there were */
export async function clearAccessLog(db: Database, now: Date): Promise<number> {
  const gone = await db
    .delete(accessLog)
    .where(lt(accessLog.at, new Date(now.getTime() - KEPT)))
    .returning({ id: accessLog.id })
  return gone.length
}

/** Takes what a person typed as their address out of the log, once they are erased. */
export const forgetInAccessLog = (db: Db, personId: string, email: string) =>
  db
    .update(accessLog)
    .set({ about: '' })
    .where(or(eq(accessLog.personId, personId), eq(accessLog.about, email)))
