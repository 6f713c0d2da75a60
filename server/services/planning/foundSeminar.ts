import { and, eq } from 'drizzle-orm'
import { usableBy } from '#server/access/seminar'
import type { Person } from '#server/access/session'
import type { Database, Db } from '#server/database/client'
import { enrolments, gradingScales, seminars } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { namesOf, sortedBreaks } from '#server/services/people'
import { addStarterRubrics } from '#server/services/rubrics'
import type { SeminarWrite } from '#shared/people/settings'

/** Who may found a seminar: who owns the installation, and who instructs somewhere already. */
export async function requireFounder(db: Db, person: Person): Promise<void> {
  if (person.foundsSeminars) return
  const [somewhere] = await db
    .select({ id: enrolments.id })
    .from(enrolments)
    .where(and(eq(enrolments.personId, person.id), eq(enrolments.role, 'instructor'), usableBy(person)))
    .limit(1)
  if (!somewhere)
    throw new Problem(
      403,
      'forbidden',
      'Seminars are set up by instructors. To join one, open the link or write the code you were given.',
    )
}

const USUAL_SCALE = {
  title: 'Letters',
  bands: [
    ['A', 93],
    ['A−', 90],
    ['B+', 87],
    ['B', 83],
    ['B−', 80],
    ['C+', 77],
    ['C', 73],
    ['C−', 70],
    ['D', 60],
    ['F', 0],
  ].map(([letter, fromPercent]) => ({ letter: String(letter), fromPercent: Number(fromPercent) })),
}

/**
 * A new seminar with its founder as instructor, four starter rubrics and a scale of letters. The browser
 * makes the id: sent again, it is made once.
 */
export async function foundSeminar(
  db: Database,
  person: Person,
  write: SeminarWrite,
  now: Date,
): Promise<{ seminarId: string }> {
  await requireFounder(db, person)
  await db.transaction(async tx => {
    const [made] = await tx
      .insert(seminars)
      .values({ ...write, breaks: sortedBreaks(write.breaks), madeAt: now })
      .onConflictDoNothing()
      .returning()
    if (!made) {
      const [own] = await tx
        .select({ id: enrolments.id })
        .from(enrolments)
        .where(and(eq(enrolments.seminarId, write.id), eq(enrolments.personId, person.id)))
      if (!own) throw new Problem(409, 'taken', 'This seminar could not be made; please try again.')
      return
    }
    await tx.insert(enrolments).values({
      seminarId: made.id,
      personId: person.id,
      ...namesOf(person),
      role: 'instructor',
      givenToAddress: false,
      joinedAt: now,
    })
    await tx.insert(gradingScales).values({ seminarId: made.id, ...USUAL_SCALE })
    await addStarterRubrics(tx, made.id)
  })
  return { seminarId: write.id }
}
