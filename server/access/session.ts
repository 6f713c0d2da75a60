import { createHash, randomBytes } from 'node:crypto'
import { and, desc, eq, gt, isNull, ne, sql } from 'drizzle-orm'
import { deleteCookie, getCookie, getRequestHeader, setCookie, type H3Event } from 'h3'
import type { Db } from '#server/database/client'
import { useDatabase } from '#server/database/connection'
import { passkeys, persons, secondFactors, sessions } from '#server/database/schema'
import { isBehindTls } from '#server/http/client'
import { Problem } from '#server/http/problem'
import { PERSON_HEADER } from '#shared/http/personHeader'
import { notifyOfEnding } from './endings'

const COOKIE = 'jovrel_session'
/** Stays when one signs out: by it a browser is known in which its owner has signed in before. It lets nobody in. */
const BROWSER_COOKIE = 'jovrel_browser'
const DAY = 86_400_000 // milliseconds
const LONGEST = 30 * DAY
const LONGEST_IDLE = 7 * DAY
const SEEN_EVERY = 5 * 60_000 // milliseconds between two notes that a session was used
const LONGEST_AGENT = 200 // characters

export interface Person {
  readonly id: string
  readonly foundsSeminars: boolean
  readonly name: string
  readonly givenName: string
  readonly familyName: string
  readonly confirmedAt: Date | null // when the address proved to be theirs
  readonly hasSecondFactor?: boolean // of who is signed in
}

const digestOf = (secret: string) => createHash('sha256').update(secret).digest('base64url')

// Sessions run on real time, not on the seminar's clock: a frozen clock must not keep anyone signed in.
export async function beginSession(event: H3Event, db: Db, personId: string): Promise<void> {
  const secret = randomBytes(32).toString('base64url')
  const browser = getCookie(event, BROWSER_COOKIE) ?? newSecret()
  const expiresAt = new Date(Date.now() + LONGEST)
  await db.insert(sessions).values({
    digest: digestOf(secret),
    personId,
    expiresAt,
    browser: digestOf(browser),
    agent: (getRequestHeader(event, 'user-agent') ?? '').slice(0, LONGEST_AGENT),
  })
  asked.delete(event)
  event.context.signedIn = personId // for the access log: the request itself still came without a session
  const cookie = { httpOnly: true, sameSite: 'lax', secure: isBehindTls(event), path: '/' } as const
  setCookie(event, COOKIE, secret, { ...cookie, expires: expiresAt })
  setCookie(event, BROWSER_COOKIE, browser, { ...cookie, maxAge: (365 * DAY) / 1000 })
}

/** The browser somebody asks with, if the owner of an address has signed in with it before; else null. */
export async function knownBrowser(event: H3Event, db: Db, email: string): Promise<string | null> {
  const secret = getCookie(event, BROWSER_COOKIE)
  if (!secret) return null
  const browser = digestOf(secret)
  const [known] = await db
    .select({ id: sessions.id })
    .from(sessions)
    .innerJoin(persons, eq(persons.id, sessions.personId))
    .where(and(eq(persons.email, email), eq(sessions.browser, browser)))
    .limit(1)
  return known ? browser : null
}

/** Revokes the session on the server; the cookie alone is worth nothing afterwards. */
export async function endSession(event: H3Event, db: Db): Promise<void> {
  const secret = getCookie(event, COOKIE)
  if (secret) await revoke(db, eq(sessions.digest, digestOf(secret)))
  asked.delete(event)
  deleteCookie(event, COOKIE, { path: '/' })
}

interface Session {
  readonly id: string
  readonly person: Person
  readonly actingAs: string | null
}
const asked = new WeakMap<H3Event, Promise<Session | null>>()

/** Who asks: looked up once for each request, however many of its steps want to know. */
function sessionOf(event: H3Event): Promise<Session | null> {
  const known = asked.get(event) ?? findSession(getCookie(event, COOKIE), useDatabase('access'))
  asked.set(event, known)
  return known
}

/** Lets a request that goes on for long ask anew whether its session still is one. */
export function forgetSession(event: H3Event): void {
  asked.delete(event)
}

async function findSession(secret: string | undefined, db: Db): Promise<Session | null> {
  if (!secret) return null
  const now = Date.now()
  const [row] = await db
    .select({
      id: sessions.id,
      lastSeenAt: sessions.lastSeenAt,
      person: {
        id: persons.id,
        foundsSeminars: persons.foundsSeminars,
        name: persons.name,
        givenName: persons.givenName,
        familyName: persons.familyName,
        confirmedAt: persons.confirmedAt,
        hasSecondFactor: sql<boolean>`${secondFactors.confirmedAt} is not null
          or exists (select 1 from ${passkeys} k where k.person_id = ${persons.id})`,
      },
      actingAs: sessions.actingAs,
    })
    .from(sessions)
    .innerJoin(persons, eq(persons.id, sessions.personId))
    .leftJoin(secondFactors, eq(secondFactors.personId, persons.id))
    .where(
      and(
        eq(sessions.digest, digestOf(secret)),
        isNull(sessions.revokedAt),
        gt(sessions.expiresAt, new Date(now)),
        gt(sessions.lastSeenAt, new Date(now - LONGEST_IDLE)),
      ),
    )
  if (!row) return null
  if (now - row.lastSeenAt.getTime() > SEEN_EVERY)
    await db
      .update(sessions)
      .set({ lastSeenAt: new Date(now) })
      .where(eq(sessions.id, row.id))
  return row
}

export async function getPerson(event: H3Event): Promise<Person | null> {
  return (await sessionOf(event))?.person ?? null
}

export async function requirePerson(event: H3Event): Promise<Person> {
  return (await requireSession(event)).person
}

export const notSignedIn = () =>
  new Problem(401, 'notSignedIn', 'You are signed out. Sign in again; what you typed is kept on this page.')

export async function requireSession(event: H3Event): Promise<Session> {
  const session = await sessionOf(event)
  if (!session) throw notSignedIn()
  const meant = getRequestHeader(event, PERSON_HEADER)
  if (meant !== undefined && meant !== session.person.id)
    throw new Problem(
      401,
      'otherPerson',
      'Somebody else has signed in in this browser. Sign in as yourself again; what you typed is kept on this page.',
    )
  return session
}

/** The practice student whose place a signed-in instructor has taken, if any. */
export async function actingAs(event: H3Event): Promise<string | null> {
  return (await sessionOf(event))?.actingAs ?? null
}

export async function setActingAs(event: H3Event, db: Db, enrolmentId: string | null): Promise<void> {
  await db
    .update(sessions)
    .set({ actingAs: enrolmentId })
    .where(eq(sessions.digest, digestOf(getCookie(event, COOKIE) ?? '')))
  asked.delete(event)
}

/** Ends all of a person's sessions: after a password was set anew, nobody stays in with the old one. */
export const endAllSessions = (db: Db, personId: string): Promise<number> =>
  revoke(db, eq(sessions.personId, personId))

/** Ends a person's sessions but the one that asks. @returns how many there were */
export const endOtherSessions = (db: Db, { id, person }: Pick<Session, 'id' | 'person'>): Promise<number> =>
  revoke(db, and(eq(sessions.personId, person.id), ne(sessions.id, id)))

/** Ends one session of a person. @returns how many there were: one, or none that is theirs */
export const endOneSession = (db: Db, person: Pick<Person, 'id'>, id: string): Promise<number> =>
  revoke(db, and(eq(sessions.personId, person.id), eq(sessions.id, id)))

async function revoke(db: Db, which: ReturnType<typeof and>): Promise<number> {
  const ended = await db
    .update(sessions)
    .set({ revokedAt: new Date() })
    .where(and(which, isNull(sessions.revokedAt)))
    .returning({ personId: sessions.personId })
  await notifyOfEnding(
    db,
    ended.map(e => e.personId),
  )
  return ended.length
}

/** A person's sessions that still let in, the one used last first. */
export function openSessions(db: Db, person: Pick<Person, 'id'>) {
  const now = Date.now()
  return db
    .select({
      id: sessions.id,
      agent: sessions.agent,
      madeAt: sessions.madeAt,
      lastSeenAt: sessions.lastSeenAt,
    })
    .from(sessions)
    .where(
      and(
        eq(sessions.personId, person.id),
        isNull(sessions.revokedAt),
        gt(sessions.expiresAt, new Date(now)),
        gt(sessions.lastSeenAt, new Date(now - LONGEST_IDLE)),
      ),
    )
    .orderBy(desc(sessions.lastSeenAt))
}

export const newSecret = (): string => randomBytes(24).toString('base64url')
export { digestOf }
