import { and, desc, eq, inArray, ne, sql } from 'drizzle-orm'
import { passwordMatches } from '#server/access/password'
import type { Person } from '#server/access/session'
import type { Db } from '#server/database/client'
import { enrolments, persons, seminars } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import type { SessionView } from '#shared/people/session'
import { isMailroom } from '#server/mail/mailServer'
import { initialsOf } from '#core/people/names'

/** The person of an e-mail address and password. Says the same of a wrong address and a wrong password. */
export async function personByPassword(db: Db, email: string, password: string): Promise<Person> {
  const [person] = await db.select().from(persons).where(eq(persons.email, email))
  if (!(await passwordMatches(password, person?.passwordHash ?? null)) || !person) {
    const sentence =
      'E-mail and password do not belong together. Check both; capital letters matter in the password.'
    throw new Problem(401, 'wrongPassword', sentence, { fields: { password: sentence } })
  }
  return person
}

export async function personById(db: Db, id: string): Promise<Person> {
  const [person] = await db.select().from(persons).where(eq(persons.id, id))
  return person!
}

export async function sessionView(db: Db, person: Person): Promise<SessionView> {
  const rows = await db
    .select({
      id: seminars.id,
      title: seminars.title,
      code: seminars.code,
      role: enrolments.role,
      archived: sql<boolean>`${seminars.state} = 'archived'`,
      givenToAddress: enrolments.givenToAddress,
    })
    .from(enrolments)
    .innerJoin(seminars, eq(seminars.id, enrolments.seminarId))
    .where(and(eq(enrolments.personId, person.id), ne(enrolments.state, 'withdrawn')))
    .orderBy(seminars.state, desc(seminars.firstDay))
  const usable = rows.filter(r => person.confirmedAt !== null || !r.givenToAddress)
  return {
    person: {
      id: person.id,
      name: person.name,
      givenName: person.givenName,
      initials: initialsOf(person),
      foundsSeminars: person.foundsSeminars || usable.some(r => r.role === 'instructor'),
      mailroom: person.foundsSeminars && isMailroom(),
      readsAccessLog: person.foundsSeminars,
    },
    seminars: rows,
  }
}

const DEMO_REASONS: ReadonlyArray<readonly [email: string, reason: string]> = [
  ['ines@northmere.example', 'the instructor: eleven students wait to be marked'],
  ['henrik@northmere.example', 'the assistant: marks, does not manage'],
  ['liv@northmere.example', 'a student in an ordinary week, two replies to go'],
  ['mireille@northmere.example', 'a student about to be marked'],
  ['rasmus@northmere.example', 'a student with a returned letter'],
  ['paz@northmere.example', 'a student who has gone silent'],
]

/** People one can sign in as at one click, in demo mode only. */
export async function demoPeople(db: Db) {
  const rows = await db
    .select({ id: persons.id, name: persons.name, email: persons.email, role: enrolments.role })
    .from(persons)
    .innerJoin(enrolments, eq(enrolments.personId, persons.id))
    .where(
      inArray(
        persons.email,
        DEMO_REASONS.map(([email]) => email),
      ),
    )
  return DEMO_REASONS.flatMap(([email, reason]) => {
    const row = rows.find(r => r.email === email)
    return row ? [{ id: row.id, name: row.name, role: row.role, reason }] : []
  })
}

/** The mailroom holds everyone's mail, with links that let people in: it is for the installation's owner. */
export function requireMailroom(person: Person): void {
  if (!isMailroom())
    throw new Problem(404, 'notFound', 'Mail goes out through a mail server here; there is no mailroom.')
  if (!person.foundsSeminars)
    throw new Problem(403, 'forbidden', 'The mailroom is for the owner of this installation.')
}

export const isDemo = (): boolean => process.env.JOVREL_DEMO === '1'

export async function requireDemoPerson(db: Db, personId: string): Promise<{ readonly id: string }> {
  const person = isDemo() ? (await demoPeople(db)).find(p => p.id === personId) : undefined
  if (!person)
    throw new Problem(404, 'notFound', 'Signing in without a password is for the demo seminar only.')
  return person
}
