import { and, eq, gt, sql } from 'drizzle-orm'
import type { Database } from '#server/database/client'
import { signInAttempts } from '#server/database/schema'
import { Problem } from '#server/http/problem'

const MOST = 10
const MINUTES = 15

/** Counts tries to sign in for an address and refuses too many, whichever process they reach. */
export async function limitAttempts(db: Database, email: string): Promise<void> {
  const since = new Date(Date.now() - MINUTES * 60_000)
  const recent = await db.$count(
    signInAttempts,
    and(eq(signInAttempts.email, email), gt(signInAttempts.at, since)),
  )
  if (recent >= MOST)
    throw new Problem(
      429,
      'tooManyTries',
      `That was tried ${MOST} times. Wait ${MINUTES} minutes, then try again.`,
    )
  await db.insert(signInAttempts).values({ email })
  await db.delete(signInAttempts).where(sql`${signInAttempts.at} < now() - interval '1 day'`)
}

/** Forgets the tries for an address once it was signed in with: only guessing is slowed down. */
export async function forgetAttempts(db: Database, email: string): Promise<void> {
  await db.delete(signInAttempts).where(eq(signInAttempts.email, email))
}
