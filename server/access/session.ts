import { createHash, randomBytes } from 'node:crypto'
import { and, eq, gt, isNull } from 'drizzle-orm'
import { deleteCookie, getCookie, getRequestHeader, setCookie, type H3Event } from 'h3'
import type { Db } from '#server/database/client'
import { persons, sessions } from '#server/database/schema'
import { Problem } from '#server/http/problem'

const COOKIE = 'jovrel_session'
const DAYS = 30

export interface Person { readonly id: string, readonly name: string, readonly givenName: string, readonly familyName: string }

const digestOf = (secret: string) => createHash('sha256').update(secret).digest('base64url')

// Sessions run on real time, not on the seminar's clock: a frozen clock must not keep anyone signed in.
export async function beginSession(event: H3Event, db: Db, personId: string): Promise<void> {
  const secret = randomBytes(32).toString('base64url')
  const expiresAt = new Date(Date.now() + DAYS * 86_400_000)
  await db.insert(sessions).values({ digest: digestOf(secret), personId, expiresAt })
  setCookie(event, COOKIE, secret, { httpOnly: true, sameSite: 'lax', secure: isBehindTls(event), path: '/', expires: expiresAt })
}

/** Revokes the session on the server; the cookie alone is worth nothing afterwards. */
export async function endSession(event: H3Event, db: Db): Promise<void> {
  const secret = getCookie(event, COOKIE)
  if (secret) await db.update(sessions).set({ revokedAt: new Date() }).where(eq(sessions.digest, digestOf(secret)))
  deleteCookie(event, COOKIE, { path: '/' })
}

export async function getPerson(event: H3Event, db: Db): Promise<Person | null> {
  const secret = getCookie(event, COOKIE)
  if (!secret) return null
  const [person] = await db.select({ id: persons.id, name: persons.name, givenName: persons.givenName, familyName: persons.familyName })
    .from(sessions).innerJoin(persons, eq(persons.id, sessions.personId))
    .where(and(eq(sessions.digest, digestOf(secret)), isNull(sessions.revokedAt), gt(sessions.expiresAt, new Date())))
  return person ?? null
}

export async function requirePerson(event: H3Event, db: Db): Promise<Person> {
  const person = await getPerson(event, db)
  if (!person) throw new Problem(401, 'notSignedIn', 'You are signed out. Sign in again; what you typed is kept on this page.')
  return person
}

const isBehindTls = (event: H3Event) =>
  (getRequestHeader(event, 'x-forwarded-proto') ?? '').split(',')[0]!.trim() === 'https'
  || 'encrypted' in event.node.req.socket
