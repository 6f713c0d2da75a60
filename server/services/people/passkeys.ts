import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server'
import { and, eq, gt, isNull, lt } from 'drizzle-orm'
import { digestOf, endOtherSessions, type Person } from '#server/access/session'
import type { Database, Db } from '#server/database/client'
import { passkeyChallenges, passkeys, persons } from '#server/database/schema'
import { nothingHere } from '#server/access/seminar'
import { Problem } from '#server/http/problem'
import type { PasskeySite } from '#server/http/passkeySite'
import type { AddPasskey, PasskeyProof } from '#shared/people/passkeys'
import { afterRemoval, hasSecondStep, lockSecondStep, makeRecoveryCodes, tellOfSignIn } from './secondStep'

/** Passkeys: keys in people's devices, after Web Authentication (W3C, level 3). */

const LASTS = 5 * 60_000 // milliseconds a challenge may be answered
const MOST = 20 // of one person

/** What the browser asks a device of this person, so that it makes a key for this site. */
export async function beginPasskey(db: Db, personId: string, site: PasskeySite) {
  const [person] = await db.select().from(persons).where(eq(persons.id, personId))
  const own = await db.select().from(passkeys).where(eq(passkeys.personId, personId))
  if (own.length >= MOST)
    throw new Problem(409, 'tooMany', `You have ${MOST} passkeys. Remove one that you do not use first.`)
  const options = await generateRegistrationOptions({
    rpName: 'Jovrel',
    rpID: site.host,
    userID: Buffer.from(personId),
    userName: person!.email,
    userDisplayName: person!.name,
    attestationType: 'none', // what make of device it is, is nobody's business here
    excludeCredentials: own
      .filter(key => key.site === site.host)
      .map(key => ({ id: key.credentialId, transports: transportsOf(key.transports) })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  })
  await rememberChallenge(db, options.challenge, personId)
  return options
}

/**
 * Adds the key a device has made. Every other session ends where it is the first second step.
 *
 * @returns recovery codes, shown this once, if it is the first second step of this person
 * @throws {Problem} 422 if it does not answer what was asked of this person in the last minutes
 */
export async function addPasskey(
  db: Database,
  session: { readonly id: string; readonly person: Person },
  write: AddPasskey,
  site: PasskeySite,
): Promise<string[]> {
  const personId = session.person.id
  const proof = await verifyRegistrationResponse({
    response: {
      ...write.credential,
      clientExtensionResults: {}, // none is asked for
      response: {
        ...write.credential.response,
        transports: transportsOf(write.credential.response.transports ?? []),
      },
    },
    expectedChallenge: challenge => takeChallenge(db, challenge, personId),
    expectedOrigin: site.origin,
    expectedRPID: site.host,
  }).catch(() => null)
  if (!proof?.verified) throw notFitting(422)
  const { credential } = proof.registrationInfo
  return db.transaction(async tx => {
    await lockSecondStep(tx, personId)
    const isFirst = !(await hasSecondStep(tx, personId))
    const added = await tx
      .insert(passkeys)
      .values({
        personId,
        credentialId: credential.id,
        publicKey: Buffer.from(credential.publicKey).toString('base64url'),
        counter: credential.counter,
        transports: credential.transports ?? [],
        site: site.host,
        title: write.title,
      })
      .onConflictDoNothing()
      .returning({ id: passkeys.id })
    if (added.length === 0) throw new Problem(409, 'known', 'This passkey is in use already.')
    await tellOfSignIn(tx, personId, {
      subject: 'A passkey was added to your Jovrel account',
      happened: `the passkey “${write.title}” was added to your account just now.`,
    })
    if (!isFirst) return []
    await endOtherSessions(tx, session)
    return makeRecoveryCodes(tx, personId)
  })
}

/** @throws {Problem} 409 if it is the last second step of somebody who has to have one */
export async function removePasskey(db: Database, personId: string, passkeyId: string): Promise<void> {
  await db.transaction(async tx => {
    await lockSecondStep(tx, personId)
    const [gone] = await tx
      .delete(passkeys)
      .where(and(eq(passkeys.id, passkeyId), eq(passkeys.personId, personId)))
      .returning({ title: passkeys.title })
    if (!gone) throw nothingHere()
    await afterRemoval(tx, personId)
    await tellOfSignIn(tx, personId, {
      subject: 'A passkey was removed from your Jovrel account',
      happened: `the passkey “${gone.title}” was removed from your account just now.`,
    })
  })
}

/** What the browser asks of a device: any passkey it has for this site, of whomever. */
export async function beginSignInByPasskey(db: Db, site: PasskeySite) {
  const options = await generateAuthenticationOptions({ rpID: site.host, userVerification: 'required' })
  await rememberChallenge(db, options.challenge, null)
  return options
}

/**
 * Whose passkey it is. The device has asked its owner for a finger, a face or a PIN: that is two steps in one.
 *
 * @throws {Problem} 401 if it is nobody's, or does not answer what was asked in the last minutes
 */
export async function personByPasskey(
  db: Database,
  { credential }: PasskeyProof,
  site: PasskeySite,
): Promise<string> {
  const [key] = await db.select().from(passkeys).where(eq(passkeys.credentialId, credential.id))
  const handle = credential.response.userHandle
  const isOwners = !handle || Buffer.from(handle, 'base64url').toString() === key?.personId
  const proof =
    key && isOwners
      ? await verifyAuthenticationResponse({
          response: { ...credential, clientExtensionResults: {} }, // none is asked for
          expectedChallenge: challenge => takeChallenge(db, challenge, null),
          expectedOrigin: site.origin,
          expectedRPID: site.host,
          credential: {
            id: key.credentialId,
            publicKey: new Uint8Array(Buffer.from(key.publicKey, 'base64url')),
            counter: key.counter,
          },
        }).catch(() => null)
      : null
  if (!key || !proof?.verified) throw notFitting(401)
  await db
    .update(passkeys)
    .set({ counter: proof.authenticationInfo.newCounter, lastUsedAt: new Date() })
    .where(eq(passkeys.id, key.id))
  return key.personId
}

const notFitting = (status: 401 | 422) =>
  new Problem(
    status,
    'passkeyUnfit',
    'This passkey does not fit, or was shown too late. Try again, or use your password.',
  )

async function rememberChallenge(db: Db, challenge: string, personId: string | null): Promise<void> {
  await db.delete(passkeyChallenges).where(lt(passkeyChallenges.expiresAt, new Date()))
  await db.insert(passkeyChallenges).values({
    digest: digestOf(challenge),
    personId,
    expiresAt: new Date(Date.now() + LASTS),
  })
}

/** @returns whether this was asked, of this person where it is about one, and nobody has answered it before */
async function takeChallenge(db: Db, challenge: string, personId: string | null): Promise<boolean> {
  const taken = await db
    .delete(passkeyChallenges)
    .where(
      and(
        eq(passkeyChallenges.digest, digestOf(challenge)),
        personId === null ? isNull(passkeyChallenges.personId) : eq(passkeyChallenges.personId, personId),
        gt(passkeyChallenges.expiresAt, new Date()),
      ),
    )
    .returning({ digest: passkeyChallenges.digest })
  return taken.length > 0
}

const TRANSPORTS = ['ble', 'cable', 'hybrid', 'internal', 'nfc', 'smart-card', 'usb'] as const
/** Those of a device's words that the specification knows. */
const transportsOf = (words: readonly string[]) => TRANSPORTS.filter(t => words.includes(t))
