import { createHash, randomBytes } from 'node:crypto'
import { and, eq, gt, isNull } from 'drizzle-orm'
import { deleteCookie, getCookie, getRequestHeader, setCookie, type H3Event } from 'h3'
import type { Db } from '#server/database/client'
import { persons, sessions } from '#server/database/schema'
import { Problem } from '#server/http/problem'

const COOKIE = 'jovrel_session'
const DAYS = 30

export interface Person {
  readonly id: string
  readonly foundsSeminars: boolean
  readonly name: string
  readonly givenName: string
  readonly familyName: string
}

const digestOf = (secret: string) => createHash('sha256').update(secret).digest('base64url')

// Sessions run on real time, not on the seminar's clock: a frozen clock must not keep anyone signed in.
export async function beginSession(event: H3Event, db: Db, personId: string): Promise<void> {
  const secret = randomBytes(32).toString('base64url')
  const expiresAt = new Date(Date.now() + DAYS * 86_400_000)
  await db.insert(sessions).values({ digest: digestOf(secret), personId, expiresAt })
  asked.delete(event)
  setCookie(event, COOKIE, secret, {
    httpOnly: true,
    sameSite: 'lax',
    secure: isBehindTls(event),
    path: '/',
    expires: expiresAt,
  })
}

/** Revokes the session on the server; the cookie alone is worth nothing afterwards. */
export async function endSession(event: H3Event, db: Db): Promise<void> {
  const secret = getCookie(event, COOKIE)
  if (secret)
    await db
      .update(sessions)
      .set({ revokedAt: new Date() })
      .where(eq(sessions.digest, digestOf(secret)))
  asked.delete(event)
  deleteCookie(event, COOKIE, { path: '/' })
}

interface Session {
  readonly person: Person
  readonly actingAs: string | null
}
const asked = new WeakMap<H3Event, Promise<Session | null>>()

/** Who asks: looked up once for each request, however many of its steps want to know. */
function sessionOf(event: H3Event, db: Db): Promise<Session | null> {
  const known = asked.get(event) ?? findSession(getCookie(event, COOKIE), db)
  asked.set(event, known)
  return known
}

async function findSession(secret: string | undefined, db: Db): Promise<Session | null> {
  if (!secret) return null
  const [row] = await db
    .select({
      person: {
        id: persons.id,
        foundsSeminars: persons.foundsSeminars,
        name: persons.name,
        givenName: persons.givenName,
        familyName: persons.familyName,
      },
      actingAs: sessions.actingAs,
    })
    .from(sessions)
    .innerJoin(persons, eq(persons.id, sessions.personId))
    .where(
      and(
        eq(sessions.digest, digestOf(secret)),
        isNull(sessions.revokedAt),
        gt(sessions.expiresAt, new Date()),
      ),
    )
  return row ?? null
}

export async function getPerson(event: H3Event, db: Db): Promise<Person | null> {
  return (await sessionOf(event, db))?.person ?? null
}

export async function requirePerson(event: H3Event, db: Db): Promise<Person> {
  const person = await getPerson(event, db)
  if (!person)
    throw new Problem(
      401,
      'notSignedIn',
      'You are signed out. Sign in again; what you typed is kept on this page.',
    )
  return person
}

/** The practice student whose place a signed-in instructor has taken, if any. */
export async function actingAs(event: H3Event, db: Db): Promise<string | null> {
  return (await sessionOf(event, db))?.actingAs ?? null
}

export async function setActingAs(event: H3Event, db: Db, enrolmentId: string | null): Promise<void> {
  await db
    .update(sessions)
    .set({ actingAs: enrolmentId })
    .where(eq(sessions.digest, digestOf(getCookie(event, COOKIE) ?? '')))
  asked.delete(event)
}

/** Ends all of a person's sessions: after a password was set anew, nobody stays in with the old one. */
export async function endAllSessions(db: Db, personId: string): Promise<void> {
  await db
    .update(sessions)
    .set({ revokedAt: new Date() })
    .where(and(eq(sessions.personId, personId), isNull(sessions.revokedAt)))
}

export const newSecret = (): string => randomBytes(24).toString('base64url')
export { digestOf }

const isBehindTls = (event: H3Event) =>
  (getRequestHeader(event, 'x-forwarded-proto') ?? '').split(',')[0]!.trim() === 'https' ||
  'encrypted' in event.node.req.socket
