import { randomInt } from 'node:crypto'
import { and, eq, isNotNull, isNull } from 'drizzle-orm'
import { isDemandedOfStaff } from '#server/access/demands'
import { passwordMatches } from '#server/access/password'
import { digestOf } from '#server/access/session'
import type { Db } from '#server/database/client'
import { enrolments, passkeys, persons, recoveryCodes, secondFactors } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { mailTo } from '#server/mail/mails'
import type { SecondFactorView } from '#shared/people/secondFactor'

const RECOVERY_CODES = 10
const LETTERS = '23456789ABCDEFGHJKLMNPQRSTUVWXYZ' // none that look like another
const RECOVERY_LENGTH = 10

export async function hasApp(db: Db, personId: string): Promise<boolean> {
  const on = and(eq(secondFactors.personId, personId), isNotNull(secondFactors.confirmedAt))
  return (await db.$count(secondFactors, on)) > 0
}

export async function hasPasskey(db: Db, personId: string): Promise<boolean> {
  return (await db.$count(passkeys, eq(passkeys.personId, personId))) > 0
}

/** Whether somebody's password alone does not sign them in. */
export async function hasSecondStep(db: Db, personId: string): Promise<boolean> {
  return (await hasApp(db, personId)) || (await hasPasskey(db, personId))
}

export async function secondFactorView(db: Db, personId: string): Promise<SecondFactorView> {
  const own = await db
    .select()
    .from(passkeys)
    .where(eq(passkeys.personId, personId))
    .orderBy(passkeys.madeAt, passkeys.id)
  const app = await hasApp(db, personId)
  return {
    isOn: app || own.length > 0,
    hasApp: app,
    passkeys: own.map(({ id, title, site, madeAt, lastUsedAt }) => ({
      id,
      title,
      site,
      madeAt: madeAt.toISOString(),
      lastUsedAt: lastUsedAt?.toISOString() ?? null,
    })),
    codesLeft: await db.$count(
      recoveryCodes,
      and(eq(recoveryCodes.personId, personId), isNull(recoveryCodes.usedAt)),
    ),
    isDemanded: await isDemandedOf(db, personId),
  }
}

const isDemandedOf = async (db: Db, personId: string): Promise<boolean> =>
  isDemandedOfStaff() && (await isStaffSomewhere(db, personId))

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

/** Locks what signs somebody in, so that of two who change it at once one comes after the other. */
export async function lockSecondStep(tx: Db, personId: string): Promise<void> {
  await tx.select({ id: persons.id }).from(persons).where(eq(persons.id, personId)).for('update')
}

/**
 * To be called once a way of the second step was taken away: without any, recovery codes open nothing either.
 *
 * @throws {Problem} 409 if it was the last and this installation demands one of them
 */
export async function afterRemoval(tx: Db, personId: string): Promise<void> {
  if (await hasSecondStep(tx, personId)) return
  if (await isDemandedOf(tx, personId))
    throw new Problem(409, 'demanded', 'Staff of this Jovrel sign in with a second step; it stays on.')
  await tx.delete(recoveryCodes).where(eq(recoveryCodes.personId, personId))
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

/** @returns whether it was one of this person's that nobody had used; it is used now */
export async function takeRecoveryCode(db: Db, personId: string, code: string): Promise<boolean> {
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
  return used.length > 0
}

/** Tells somebody by mail what was changed of how they sign in, and what to do if it was not them. */
export async function tellOfSignIn(
  tx: Db,
  personId: string,
  { subject, happened }: { readonly subject: string; readonly happened: string },
): Promise<void> {
  const [person] = await tx.select().from(persons).where(eq(persons.id, personId))
  await mailTo(tx, {
    person: person!,
    seminarId: null,
    key: `second-step:${personId}:${Date.now()}`,
    subject,
    text: `Hello ${person!.givenName},\n\n${happened} If that was not you, choose a new password and tell whoever runs your Jovrel.\n`,
  })
}
