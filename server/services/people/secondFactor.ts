import { randomInt } from 'node:crypto'
import { and, eq, isNotNull, isNull, lt } from 'drizzle-orm'
import { Secret, TOTP } from 'otpauth'
import { renderSVG } from 'uqr'
import { isDemandedOfStaff } from '#server/access/demands'
import { passwordMatches } from '#server/access/password'
import { digestOf, endOtherSessions, type Person } from '#server/access/session'
import type { Database, Db } from '#server/database/client'
import { enrolments, persons, recoveryCodes, secondFactors } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { mailTo } from '#server/services/messaging/mails'
import type { SecondFactorSecret, SecondFactorView } from '#shared/people/secondFactor'

const PERIOD = 30 // seconds a code is shown
const DRIFT = 1 // periods a clock may be off, either way
const RECOVERY_CODES = 10
const LETTERS = '23456789ABCDEFGHJKLMNPQRSTUVWXYZ' // none that look like another
const RECOVERY_LENGTH = 10

/** Codes by time (RFC 6238): six digits, half a minute, HMAC-SHA-1, as every app makes them. */
const codesOf = (secret: string, label = '') =>
  new TOTP({ issuer: 'Jovrel', label, period: PERIOD, digits: 6, secret: Secret.fromBase32(secret) })

export async function hasSecondFactor(db: Db, personId: string): Promise<boolean> {
  const on = and(eq(secondFactors.personId, personId), isNotNull(secondFactors.confirmedAt))
  return (await db.$count(secondFactors, on)) > 0
}

export async function secondFactorView(db: Db, personId: string): Promise<SecondFactorView> {
  return {
    isOn: await hasSecondFactor(db, personId),
    codesLeft: await db.$count(
      recoveryCodes,
      and(eq(recoveryCodes.personId, personId), isNull(recoveryCodes.usedAt)),
    ),
    isDemanded: isDemandedOfStaff() && (await isStaffSomewhere(db, personId)),
  }
}

async function isStaffSomewhere(db: Db, personId: string): Promise<boolean> {
  const [person] = await db.select().from(persons).where(eq(persons.id, personId))
  if (person?.foundsSeminars) return true
  const rows = await db
    .select({ role: enrolments.role })
    .from(enrolments)
    .where(and(eq(enrolments.personId, personId), eq(enrolments.state, 'active')))
  return rows.some(r => r.role === 'instructor' || r.role === 'assistant')
}

/** @throws {Problem} at the field, if it is not this person's password */
export async function requirePassword(db: Db, personId: string, password: string): Promise<void> {
  const [person] = await db.select().from(persons).where(eq(persons.id, personId))
  if (!(await passwordMatches(password, person?.passwordHash ?? null)))
    throw refusedField('password', 'wrongPassword', 'This is not your password. Capital letters matter.')
}

/** Makes a secret for the app. It counts for nothing until a code of it was shown. */
export async function beginSecondFactor(db: Db, personId: string): Promise<SecondFactorSecret> {
  const [person] = await db.select().from(persons).where(eq(persons.id, personId))
  const secret = new Secret({ size: 20 }).base32
  const begun = await db
    .insert(secondFactors)
    .values({ personId, secret })
    .onConflictDoUpdate({
      target: secondFactors.personId,
      set: { secret, madeAt: new Date() },
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
  if (isDemandedOfStaff() && (await isStaffSomewhere(db, personId)))
    throw new Problem(409, 'demanded', 'Staff of this Jovrel sign in with a second step; it stays on.')
  await db.transaction(async tx => {
    const gone = await tx
      .delete(secondFactors)
      .where(eq(secondFactors.personId, personId))
      .returning({ confirmedAt: secondFactors.confirmedAt })
    await tx.delete(recoveryCodes).where(eq(recoveryCodes.personId, personId))
    if (gone[0]?.confirmedAt) await tellOf(tx, personId, 'off')
  })
}

/** New recovery codes in place of all there were. */
export async function makeRecoveryCodes(db: Db, personId: string): Promise<string[]> {
  const codes = Array.from({ length: RECOVERY_CODES }, () =>
    Array.from({ length: RECOVERY_LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join(''),
  )
  await db.delete(recoveryCodes).where(eq(recoveryCodes.personId, personId))
  await db.insert(recoveryCodes).values(codes.map(code => ({ personId, digest: digestOf(code) })))
  return codes.map(code => `${code.slice(0, 5)}-${code.slice(5)}`)
}

/** @throws {Problem} at the field, unless the code is the app's of this minute, or a recovery code; each is taken once */
export async function requireCode(db: Db, personId: string, code: string): Promise<void> {
  if (await takeCode(db, personId, code, true)) return
  const used = await db
    .update(recoveryCodes)
    .set({ usedAt: new Date() })
    .where(
      and(
        eq(recoveryCodes.personId, personId),
        eq(recoveryCodes.digest, digestOf(code)),
        isNull(recoveryCodes.usedAt),
      ),
    )
    .returning({ id: recoveryCodes.id })
  if (used.length === 0)
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
  const drift = codesOf(factor.secret).validate({ token: code, window: DRIFT })
  if (drift === null) return false
  const step = Math.floor(Date.now() / 1000 / PERIOD) + drift
  const taken = await db
    .update(secondFactors)
    .set({ lastStep: step })
    .where(and(eq(secondFactors.personId, personId), lt(secondFactors.lastStep, step), state))
    .returning({ personId: secondFactors.personId })
  return taken.length > 0
}

async function tellOf(tx: Db, personId: string, state: 'on' | 'off'): Promise<void> {
  const [person] = await tx.select().from(persons).where(eq(persons.id, personId))
  await mailTo(tx, {
    person: person!,
    seminarId: null,
    key: `second-step:${personId}:${Date.now()}`,
    subject: `The second step of your Jovrel account is ${state}`,
    text: `Hello ${person!.givenName},\n\nthe second step when signing in was turned ${state} just now. If that was not you, choose a new password and tell whoever runs your Jovrel.\n`,
  })
}
