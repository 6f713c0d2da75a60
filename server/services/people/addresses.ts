import { randomUUID } from 'node:crypto'
import { and, eq, gt } from 'drizzle-orm'
import { digestOf, newSecret, type Person } from '#server/access/session'
import type { Database, Db } from '#server/database/client'
import { addressLinks, passwordLinks, persons } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { mailTo } from '#server/mail/mails'
import { ownAddress } from '#server/mail/mailServer'
import { requirePassword } from './passwords'

const LASTS = 24 * 3_600_000 // milliseconds

type Owner = Pick<typeof persons.$inferSelect, 'id' | 'givenName' | 'email'>

/** Mails a link by which an address is confirmed, in place of any that was sent before. */
export async function mailAddressLink(tx: Db, person: Owner, email: string): Promise<void> {
  const secret = newSecret()
  await tx.delete(addressLinks).where(eq(addressLinks.personId, person.id))
  await tx.insert(addressLinks).values({
    digest: digestOf(secret),
    personId: person.id,
    email,
    expiresAt: new Date(Date.now() + LASTS),
  })
  await mailTo(tx, {
    person: { id: person.id, email },
    seminarId: null,
    key: `address:${randomUUID()}`,
    subject: 'Confirm your address for Jovrel',
    text: `Hello ${person.givenName},\n\nconfirm that this is your address:\n${ownAddress()}/address/${secret}\n\nThe link works for a day. If you do not know of this, do nothing: nobody can use your address without it.\n`,
  })
}

/** Sends the link for the person's own address again. */
export async function askForConfirmation(db: Database, person: Pick<Person, 'id'>): Promise<void> {
  await db.transaction(async tx => {
    const [row] = await tx.select().from(persons).where(eq(persons.id, person.id)).for('update')
    if (row!.confirmedAt) return
    await mailAddressLink(tx, row!, row!.email)
  })
}

/** Asks for another address: it becomes the person's once its owner has followed the link. */
export async function askForAddress(
  db: Database,
  person: Pick<Person, 'id'>,
  write: { readonly email: string; readonly password: string },
): Promise<void> {
  const owner = await requirePassword(db, person, write.password, 'password')
  if (write.email === owner.email) throw refusedField('email', 'same', 'This is your address already.')
  // whether the address has an account is not told: the link says so to whoever owns it
  await db.transaction(tx => mailAddressLink(tx, owner, write.email))
}

const isOpen = (secret: string) =>
  and(eq(addressLinks.digest, digestOf(secret)), gt(addressLinks.expiresAt, new Date()))

const linkGone = () =>
  new Problem(
    404,
    'linkGone',
    'This link was used already, is older than a day, or a newer one was sent. Ask for another on your account page.',
  )

/** Which address a link confirms, and whose it will be. */
export async function addressOfLink(db: Db, secret: string): Promise<{ name: string; email: string }> {
  const [row] = await db
    .select({ name: persons.name, email: addressLinks.email })
    .from(addressLinks)
    .innerJoin(persons, eq(persons.id, addressLinks.personId))
    .where(isOpen(secret))
  if (!row) throw linkGone()
  return row
}

/** Confirms an address. Where it is another than before, links that went to the old one open nothing any more, and its owner is told. */
export async function confirmAddress(db: Database, secret: string): Promise<void> {
  await db.transaction(async tx => {
    const [link] = await tx.delete(addressLinks).where(isOpen(secret)).returning()
    if (!link) throw linkGone()
    const [before] = await tx.select().from(persons).where(eq(persons.id, link.personId)).for('update')
    const [taken] = await tx.select({ id: persons.id }).from(persons).where(eq(persons.email, link.email))
    if (taken && taken.id !== link.personId)
      throw new Problem(
        409,
        'addressTaken',
        'Another account has this address already. Sign in with that one, or choose another address.',
      )
    await tx
      .update(persons)
      .set({ email: link.email, confirmedAt: new Date() })
      .where(eq(persons.id, link.personId))
    if (before!.email === link.email) return
    await tx.delete(passwordLinks).where(eq(passwordLinks.personId, link.personId))
    await mailTo(tx, {
      person: before!,
      seminarId: null,
      key: `addressChanged:${randomUUID()}`,
      subject: 'Your address for Jovrel was changed',
      text: `Hello ${before!.givenName},\n\nyour account has another address from now on: ${link.email}. If it was not you, write to whoever runs your Jovrel.\n`,
    })
  })
}

/** The address that waits to be confirmed in place of the person's own, if any. */
export async function addressAskedFor(db: Db, person: Owner): Promise<string | null> {
  const [link] = await db
    .select({ email: addressLinks.email })
    .from(addressLinks)
    .where(and(eq(addressLinks.personId, person.id), gt(addressLinks.expiresAt, new Date())))
  return link && link.email !== person.email ? link.email : null
}
