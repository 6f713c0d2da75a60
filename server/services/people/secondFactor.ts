import { and, eq, isNotNull, isNull, lt } from 'drizzle-orm'
import { Secret, TOTP } from 'otpauth'
import { renderSVG } from 'uqr'
import { seal, unseal } from '#server/access/seal'
import { endOtherSessions, type Person } from '#server/access/session'
import type { Database, Db } from '#server/database/client'
import { persons, secondFactors } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import type { SecondFactorSecret } from '#shared/people/secondFactor'
import { afterRemoval, lockSecondStep, makeRecoveryCodes, takeRecoveryCode, tellOfSignIn } from './secondStep'

const PERIOD = 30 // seconds a code is shown
const DRIFT = 1 // periods a clock may be off, either way

/** Codes by time (RFC 6238): six digits, half a minute, HMAC-SHA-1, as every app makes them. */
const codesOf = (secret: string, label = '') =>
  new TOTP({ issuer: 'Jovrel', label, period: PERIOD, digits: 6, secret: Secret.fromBase32(secret) })

/** Makes a secret for the app. It counts for nothing until a code of it was shown. */
export async function beginSecondFactor(db: Db, personId: string): Promise<SecondFactorSecret> {
  const [person] = await db.select().from(persons).where(eq(persons.id, personId))
  const secret = new Secret({ size: 20 }).base32
  const begun = await db
    .insert(secondFactors)
    .values({ personId, secret: seal(secret, personId) })
    .onConflictDoUpdate({
      target: secondFactors.personId,
      set: { secret: seal(secret, personId), madeAt: new Date() },
      setWhere: isNull(secondFactors.confirmedAt),
    })
    .returning({ personId: secondFactors.personId })
  if (begun.length === 0)
    throw new Problem(409, 'isOn', 'The second step is on already. Turn it off first to set up another app.')
  const address = codesOf(secret, person!.email).toString()
  return { secret, address, qr: renderSVG(address) }
}

/** Turns the second step on. Every other session ends. @returns recovery codes, shown this once */
export async function confirmSecondFactor(
  db: Database,
  session: { readonly id: string; readonly person: Person },
  code: string,
): Promise<string[]> {
  const personId = session.person.id
  return db.transaction(async tx => {
    if (!(await takeCode(tx, personId, code, false)))
      throw refusedField(
        'code',
        'wrongCode',
        'This is not the code the app shows now. Wait for the next one, and check the clock of the phone.',
      )
    await tx
      .update(secondFactors)
      .set({ confirmedAt: new Date() })
      .where(eq(secondFactors.personId, personId))
    await endOtherSessions(tx, session)
    await tellOf(tx, personId, 'on')
    return makeRecoveryCodes(tx, personId)
  })
}

export async function endSecondFactor(db: Database, personId: string): Promise<void> {
  await db.transaction(async tx => {
    await lockSecondStep(tx, personId)
    const gone = await tx
      .delete(secondFactors)
      .where(eq(secondFactors.personId, personId))
      .returning({ confirmedAt: secondFactors.confirmedAt })
    await afterRemoval(tx, personId)
    if (gone[0]?.confirmedAt) await tellOf(tx, personId, 'off')
  })
}

const tellOf = (tx: Db, personId: string, state: 'on' | 'off'): Promise<void> =>
  tellOfSignIn(tx, personId, {
    subject: `The second step of your Jovrel account is ${state}`,
    happened: `the second step when signing in was turned ${state} just now.`,
  })

/** @throws {Problem} at the field, unless the code is the app's of this minute, or a recovery code; each is taken once */
export async function requireCode(db: Db, personId: string, code: string): Promise<void> {
  if (await takeCode(db, personId, code, true)) return
  if (!(await takeRecoveryCode(db, personId, code)))
    throw refusedField(
      'code',
      'wrongCode',
      'This code does not fit, or was used already. Wait for the next one, or use a recovery code.',
      401,
    )
}

/** Of two who show the same code at once, one gets in. */
async function takeCode(db: Db, personId: string, code: string, isOn: boolean): Promise<boolean> {
  const state = isOn ? isNotNull(secondFactors.confirmedAt) : isNull(secondFactors.confirmedAt)
  const [factor] = await db
    .select()
    .from(secondFactors)
    .where(and(eq(secondFactors.personId, personId), state))
  if (!factor || !/^\d{6}$/.test(code)) return false
  const secret = unseal(factor.secret, personId)
  const drift = codesOf(secret).validate({ token: code, window: DRIFT })
  if (drift === null) return false
  const step = Math.floor(Date.now() / 1000 / PERIOD) + drift
  const taken = await db
    .update(secondFactors)
    .set({ lastStep: step, secret: seal(secret, personId) }) // sealed from now on, if there was no key before
    .where(and(eq(secondFactors.personId, personId), lt(secondFactors.lastStep, step), state))
    .returning({ personId: secondFactors.personId })
  return taken.length > 0
}
