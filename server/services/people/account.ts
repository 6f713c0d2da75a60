import { keptNames, nameParts } from '#core/people/names'
import { eq } from 'drizzle-orm'
import { hashPassword } from '#server/access/password'
import { requireGoodPassword } from '#server/access/passwordQuality'
import { newSecret, type Person } from '#server/access/session'
import type { Database, Db } from '#server/database/client'
import { lock } from '#server/database/locks'
import { enrolments, persons } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { isMailroom } from '#server/mail/mailServer'
import type {
  AccountView,
  AccountWrite,
  FirstAccountWrite,
  Installation,
  NameWrite,
} from '#shared/people/account'
import { addressAskedFor } from './addresses'
import { isDemo } from './session'
import { useSetupCode } from './setupCode'

export async function installation(db: Db): Promise<Installation> {
  const [someone] = await db.select({ id: persons.id }).from(persons).limit(1)
  return { empty: !someone, demo: isDemo(), mailroom: isMailroom() }
}

/** The first account of an installation: an instructor who founds seminars. Later ones are made by joining or being invited. */
export async function makeFirstAccount(
  db: Database,
  write: FirstAccountWrite,
): Promise<{ readonly id: string }> {
  await requireGoodPassword(write.password, write)
  const passwordHash = await hashPassword(write.password)
  return db.transaction(async tx => {
    await lock(tx, 'firstAccount', '')
    const { empty } = await installation(tx)
    if (!empty)
      throw new Problem(
        409,
        'notFirst',
        'This installation has its first account already. Sign in, or ask its owner to add you to a seminar.',
      )
    await useSetupCode(tx, write.code)
    return insertPerson(tx, write, { passwordHash, foundsSeminars: true, confirmedAt: new Date() })
  })
}

export async function insertPerson(
  db: Db,
  p: Pick<AccountWrite, 'givenName' | 'familyName' | 'email'>,
  more: Partial<Pick<typeof persons.$inferInsert, 'passwordHash' | 'foundsSeminars' | 'confirmedAt'>> = {},
) {
  const [person] = await db
    .insert(persons)
    .values({ email: p.email, ...keptNames(p), ...more })
    .onConflictDoNothing()
    .returning()
  if (!person)
    throw refusedField(
      'email',
      'known',
      'There is an account with this address already. Sign in with it, then open the link again.',
      409,
    )
  return person
}

export async function accountView(db: Db, person: Person): Promise<AccountView> {
  const [row] = await db.select().from(persons).where(eq(persons.id, person.id))
  return {
    name: row!.name,
    ...nameParts(row!),
    email: row!.email,
    isConfirmed: row!.confirmedAt !== null,
    emailAskedFor: await addressAskedFor(db, row!),
    hasPassword: row!.passwordHash !== null,
    mailChoice: row!.mailChoice,
    calendarPath: row!.calendarSecret && `/calendar/${row!.calendarSecret}.ics`,
    foundsSeminars: row!.foundsSeminars,
  }
}

/** Corrects one's own name, in every seminar, too; no roster changes it there any more. */
export function setName(db: Database, person: Person, write: NameWrite): Promise<AccountView> {
  const names = keptNames(write)
  return db.transaction(async tx => {
    await tx.update(persons).set(names).where(eq(persons.id, person.id))
    await tx
      .update(enrolments)
      .set({ ...names, nameIsOwn: true })
      .where(eq(enrolments.personId, person.id))
    return accountView(tx, person)
  })
}

export async function setMailChoice(
  db: Db,
  person: Person,
  mailChoice: AccountView['mailChoice'],
): Promise<AccountView> {
  await db.update(persons).set({ mailChoice }).where(eq(persons.id, person.id))
  return accountView(db, person)
}

/** A new address for the calendar feed; the old one opens nothing from now on. Null takes the feed away. */
export async function setCalendar(db: Db, person: Person, on: boolean): Promise<AccountView> {
  await db
    .update(persons)
    .set({ calendarSecret: on ? newSecret() : null })
    .where(eq(persons.id, person.id))
  return accountView(db, person)
}
