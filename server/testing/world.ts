import { and, eq, sql } from 'drizzle-orm'
import { hashPassword, OPEN_COST } from '#server/access/password'
import { openDatabase, rowsOf, type Database } from '#server/database/client'
import * as t from '#server/database/schema'
import { startServices } from '#server/services/startServices'
import { namesOf } from '#server/services/people/nameView'
import { testDatabase } from './database'
import { claimServer } from './warmServer'
import { Client, testServer } from './server'

// what services say within a test is told as a server tells it
startServices()

export const email = (key: string) => `${key}@northmere.example`

/**
 * The demo seminar for one test alone, with an observer and somebody from another seminar added. `own`: on a server
 * started for it. `minutes: false`: without the minute's work, which could come between what a test sets and what it asks.
 */
export async function testWorld({
  own = false,
  minutes = true,
  env = {},
}: { own?: boolean; minutes?: boolean; env?: Record<string, string> } = {}) {
  const { url, db, address, pid, stopServer, close: leave } = await (own ? ownServer(env) : warmServer())
  const goOn = minutes ? null : await stopMinutes(db)
  const close = async () => {
    await goOn?.()
    await leave()
  }
  await addOutsiders(db)
  const [seminar] = await db.select().from(t.seminars).where(eq(t.seminars.code, 'HC 342'))
  const activities = await db.select().from(t.activities)
  const activity = (words: string) => activities.find(a => a.title.includes(words))!
  return {
    db,
    databaseUrl: url,
    address,
    stopServer,
    /** The server's process, of a world of its own. */
    pid,
    seminar: seminar!,
    breakwater: activity('breakwater'),
    dredge: activity('dredge'),
    pilot: activity('pilot'),
    essays: activity('essays'),
    reports: activity('Source reports'),
    teammates: activity('share in the walls'),
    city: activity('City pages'),
    walls: activity('Walls of Sundvik'),
    terms: activity('Terms of the sea'),
    roll: activity('Reading the toll roll'),
    calm: activity('Who may wait'),
    as: async (key: string) => new Client(address).signIn(email(key)),
    nobody: new Client(address),
    async enrolment(key: string) {
      const [row] = await db
        .select({ enrolment: t.enrolments })
        .from(t.enrolments)
        .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
        .where(and(eq(t.persons.email, email(key)), eq(t.enrolments.seminarId, seminar!.id)))
      return row!.enrolment
    },
    /** What somebody reviews in an activity, or, of somebody, what was written. */
    async allocation(activityId: string, who: { readonly by?: string; readonly of?: string }) {
      const [by, of] = await Promise.all([
        who.by ? this.enrolment(who.by) : null,
        who.of ? this.enrolment(who.of) : null,
      ])
      const rows = await db
        .select()
        .from(t.allocations)
        .where(
          and(
            eq(t.allocations.activityId, activityId),
            ...(by ? [eq(t.allocations.reviewerId, by.id)] : []),
            ...(of ? [eq(t.allocations.subjectId, of.id)] : []),
          ),
        )
      return rows.find(r => r.reviewerId !== r.subjectId)!
    },
    async rubric(title: string) {
      const [row] = await db
        .select()
        .from(t.rubrics)
        .where(and(eq(t.rubrics.title, title), eq(t.rubrics.seminarId, seminar!.id)))
      return row!
    },
    /** A page of a group's wiki. */
    async page(activityId: string, group: string, title: string) {
      const [row] = await db
        .select({ page: t.wikiPages })
        .from(t.wikiPages)
        .innerJoin(t.groups, eq(t.groups.id, t.wikiPages.groupId))
        .where(
          and(
            eq(t.wikiPages.activityId, activityId),
            eq(t.groups.title, group),
            eq(t.wikiPages.title, title),
          ),
        )
      return row!.page
    },
    async contribution(
      author: string,
      activityId: string,
      type: 'post' | 'reply' | 'entry' | 'term' | 'comment' | 'pageVersion' | 'note' = 'post',
    ) {
      const enrolment = await this.enrolment(author)
      const [row] = await db
        .select()
        .from(t.contributions)
        .where(
          and(
            eq(t.contributions.authorId, enrolment.id),
            eq(t.contributions.activityId, activityId),
            eq(t.contributions.type, type),
            eq(t.contributions.state, 'shown'),
          ),
        )
        .orderBy(t.contributions.shownAt)
      return row!
    },
    close,
  }
}
export type World = Awaited<ReturnType<typeof testWorld>>

/** Takes the minute's work out of the schedule. @returns how to put it back */
async function stopMinutes(db: Database): Promise<() => Promise<void>> {
  const rows = await rowsOf<{ row: unknown }>(
    db,
    sql`delete from pgboss.schedule where name like 'due-%' returning to_jsonb(schedule) as row`,
  )
  await db.execute(sql`delete from pgboss.job where name like 'due-%'`)
  return async () => {
    for (const { row } of rows)
      await db.execute(
        sql`insert into pgboss.schedule select *
          from jsonb_populate_record(null::pgboss.schedule, ${JSON.stringify(row)}::jsonb) on conflict do nothing`,
      )
  }
}

async function ownServer(env: Record<string, string> = {}) {
  const { url, db, drop } = await testDatabase()
  const server = await testServer(url, env)
  return {
    url,
    db,
    address: server.address,
    pid: server.child.pid!,
    stopServer: server.stop,
    async close() {
      await server.stop()
      await drop()
    },
  }
}

async function warmServer() {
  const claimed = await claimServer()
  if (!claimed) return ownServer()
  const { url, address } = claimed
  const { db, close } = openDatabase(url, 2)
  const stopServer = () => {
    throw new Error('This server serves other tests after this one: ask for a world of your own.')
  }
  return {
    url,
    db,
    address,
    pid: null,
    stopServer,
    async close() {
      await close()
      await claimed.release()
    },
  }
}

async function addOutsiders(db: Database) {
  const passwordHash = await hashPassword('harbour', OPEN_COST)
  const [seminar] = await db.select().from(t.seminars)
  const [observer] = await db
    .insert(t.persons)
    .values({
      email: email('observer'),
      name: 'Ottoline Varga',
      givenName: 'Ottoline',
      familyName: 'Varga',
      passwordHash,
      confirmedAt: new Date(),
    })
    .returning()
  await db.insert(t.enrolments).values({
    seminarId: seminar!.id,
    personId: observer!.id,
    ...namesOf(observer!),
    role: 'observer',
  })
  const [other] = await db
    .insert(t.seminars)
    .values({
      code: 'XX 1',
      title: 'Elsewhere',
      college: 'Northmere College',
      timeZone: 'Europe/Amsterdam',
      firstDay: seminar!.firstDay,
      weeks: 12,
    })
    .returning()
  const [outsider] = await db
    .insert(t.persons)
    .values({
      email: email('outsider'),
      name: 'Odd Outsider',
      givenName: 'Odd',
      familyName: 'Outsider',
      passwordHash,
      confirmedAt: new Date(),
    })
    .returning()
  await db.insert(t.enrolments).values({
    seminarId: other!.id,
    personId: outsider!.id,
    ...namesOf(outsider!),
    role: 'instructor',
  })
}

/** A document of one paragraph a line. */
export const doc = (...lines: string[]) => ({
  type: 'doc',
  content: lines.map(text => ({ type: 'paragraph', content: text ? [{ type: 'text', text }] : [] })),
})
export const words = (n: number, word = 'harbour') =>
  Array.from({ length: n }, (_, i) => `${word}${i}`).join(' ')
