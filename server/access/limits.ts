import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import type { Pool } from 'pg'
import { lt } from 'drizzle-orm'
import type { Database } from '#server/database/client'
import { rateLimits } from '#server/database/schema'
import { Problem } from '#server/http/problem'

/** How many tries of a sort are taken within how many minutes. */
interface Limit {
  readonly name: string
  readonly most: number
  readonly minutes: number
  readonly isForgotten?: boolean // once a try was right, those before it count no more
}

const WINDOW = 15 // minutes
/** Wrong passwords for one address, from browsers its owner has not signed in with. */
const ACCOUNT: Limit = { name: 'account', most: 10, minutes: WINDOW, isForgotten: true }
/** Wrong passwords for one address from one browser its owner knows: others' guesses do not lock the owner out. */
const KNOWN_BROWSER: Limit = { name: 'browser', most: 10, minutes: WINDOW, isForgotten: true }
/** Wrong passwords from one network address. A college may have one for all its rooms. */
const CLIENT: Limit = { name: 'client', most: 200, minutes: WINDOW }
/** Wrong passwords in all: a guess at many addresses from many places. */
const EVERYONE: Limit = { name: 'everyone', most: 5000, minutes: WINDOW }
/** Codes of an app that were not right: six digits are soon guessed. */
const CODE: Limit = { name: 'code', most: 10, minutes: WINDOW, isForgotten: true }
const PASSWORD_MAIL: Limit = { name: 'password-mail', most: 10, minutes: 60 }
const ADDRESS_MAIL: Limit = { name: 'address-mail', most: 10, minutes: 60 }
/** Codes and links that open nothing, from one network address. */
const SECRET: Limit = { name: 'secret', most: 60, minutes: WINDOW }

/** Wishes to sign in with a passkey, from one network address: each is remembered for minutes. */
const PASSKEY: Limit = { name: 'passkey', most: 1000, minutes: WINDOW }

type Try = readonly [limit: Limit, subject: string]

export interface Tries {
  /** Takes the tries back: what was tried was right, and only guessing is slowed down. */
  readonly giveBack: () => Promise<void>
}

/** A try to sign in, counted before the password is looked at. */
export const countSignIn = (
  db: Database,
  asked: { readonly email: string; readonly client: string; readonly knownBrowser: string | null },
): Promise<Tries> =>
  count(db, [
    asked.knownBrowser ? [KNOWN_BROWSER, `${asked.knownBrowser}:${asked.email}`] : [ACCOUNT, asked.email],
    [CLIENT, asked.client],
    [EVERYONE, ''],
  ])

/** A wish for a mail with a link to a new password. */
export const countPasswordMail = (db: Database, email: string, client: string): Promise<Tries> =>
  count(db, [
    [PASSWORD_MAIL, email],
    [CLIENT, client],
  ])

/** A wish for a mail by which an address is confirmed. */
export const countAddressMail = (db: Database, personId: string): Promise<Tries> =>
  count(db, [[ADDRESS_MAIL, personId]])

/** The current password, asked for again before something is changed. */
export const countReentry = (db: Database, personId: string): Promise<Tries> =>
  count(db, [[ACCOUNT, `again:${personId}`]])

/** A code shown beside a password. */
export const countCode = (db: Database, personId: string): Promise<Tries> => count(db, [[CODE, personId]])

/** A wish to sign in with a passkey. No proof is taken that was not asked for, so proofs are bounded, too. */
export const countPasskey = (db: Database, client: string): Promise<Tries> => count(db, [[PASSKEY, client]])

/** Does something with a code or a link, and counts those that open nothing (404). */
export async function withSecret<T>(db: Database, client: string, act: () => Promise<T>): Promise<T> {
  const tries = await count(db, [[SECRET, client]])
  try {
    const result = await act()
    await tries.giveBack()
    return result
  } catch (error) {
    if (!(error instanceof Problem && error.status === 404)) await tries.giveBack()
    throw error
  }
}

/** Counters that nobody needs any more. @returns how many there were */
export async function clearLimits(db: Database, now: Date): Promise<number> {
  const gone = await db
    .delete(rateLimits)
    .where(lt(rateLimits.expire, now.getTime()))
    .returning({ key: rateLimits.key })
  return gone.length
}

/** Counts a try with each of its counters, atomically, before anything is looked at: of many at once no more than may pass. */
async function count(db: Database, tries: readonly Try[]): Promise<Tries> {
  for (const [limit, subject] of tries) {
    try {
      await limiterOf(db, limit).consume(subject)
    } catch (refused) {
      if (!(refused instanceof RateLimiterRes)) throw refused
      const minutes = Math.max(1, Math.ceil(refused.msBeforeNext / 60_000))
      throw new Problem(
        429,
        'tooManyTries',
        `This was tried too often. Wait ${minutes === 1 ? 'a minute' : `${minutes} minutes`}, then try again.`,
      )
    }
  }
  return {
    giveBack: async () => {
      for (const [limit, subject] of tries) {
        const limiter = limiterOf(db, limit)
        await (limit.isForgotten ? limiter.delete(subject) : limiter.reward(subject))
      }
    },
  }
}

const limiters = new WeakMap<Database, Map<string, RateLimiterPostgres>>()

function limiterOf(db: Database, { name, most, minutes }: Limit): RateLimiterPostgres {
  const known = limiters.get(db) ?? new Map<string, RateLimiterPostgres>()
  limiters.set(db, known)
  const limiter =
    known.get(name) ??
    new RateLimiterPostgres({
      storeClient: (db as Database & { readonly $client: Pool }).$client, // the pool it was opened on
      tableName: 'rate_limits',
      tableCreated: true,
      clearExpiredByTimeout: false,
      keyPrefix: name,
      points: most,
      duration: minutes * 60,
    })
  known.set(name, limiter)
  return limiter
}
