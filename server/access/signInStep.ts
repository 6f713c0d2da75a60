import { eq, lt } from 'drizzle-orm'
import { deleteCookie, getCookie, setCookie, type H3Event } from 'h3'
import type { Db } from '#server/database/client'
import { signInSteps } from '#server/database/schema'
import { isBehindTls } from '#server/http/client'
import { Problem } from '#server/http/problem'
import { digestOf, newSecret } from './session'

const COOKIE = 'jovrel_step'
const LASTS = 10 * 60_000 // milliseconds

/** Remembers that somebody's password was right, in this browser alone, until they show their code. */
export async function beginStep(event: H3Event, db: Db, personId: string): Promise<void> {
  const secret = newSecret()
  const expiresAt = new Date(Date.now() + LASTS)
  await db.delete(signInSteps).where(lt(signInSteps.expiresAt, new Date()))
  await db.insert(signInSteps).values({ digest: digestOf(secret), personId, expiresAt })
  setCookie(event, COOKIE, secret, {
    httpOnly: true,
    sameSite: 'lax',
    secure: isBehindTls(event),
    path: '/api/session',
    expires: expiresAt,
  })
}

/** Whose code is awaited in this browser. @throws {Problem} 401 if nobody's, or not any more */
export async function personOfStep(event: H3Event, db: Db): Promise<string> {
  const secret = getCookie(event, COOKIE)
  const [step] = secret
    ? await db
        .select()
        .from(signInSteps)
        .where(eq(signInSteps.digest, digestOf(secret)))
    : []
  if (!step || step.expiresAt.getTime() <= Date.now())
    throw new Problem(401, 'stepGone', 'This took longer than ten minutes. Sign in with your password again.')
  return step.personId
}

export async function endStep(event: H3Event, db: Db): Promise<void> {
  const secret = getCookie(event, COOKIE)
  if (secret) await db.delete(signInSteps).where(eq(signInSteps.digest, digestOf(secret)))
  deleteCookie(event, COOKIE, { path: '/api/session' })
}
