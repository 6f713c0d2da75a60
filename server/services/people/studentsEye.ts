import { and, eq } from 'drizzle-orm'
import type { Actor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { enrolments, persons } from '#server/database/schema'
import { namesOf } from './nameView'

/** The practice student of an instructor or assistant, made at the first look: nobody signs in as it, nothing counts it. */
export function practiceEnrolment(db: Database, actor: Actor): Promise<string> {
  return db.transaction(async tx => {
    await tx.select().from(persons).where(eq(persons.id, actor.person.id)).for('update') // two first looks at once make one
    const [known] = await tx.select().from(persons).where(eq(persons.practiceOf, actor.person.id))
    const [person] = known
      ? [known]
      : await tx
          .insert(persons)
          .values({
            email: `practice.${actor.person.id}@jovrel.invalid`,
            name: `Practice student (${actor.person.givenName})`,
            givenName: 'Practice',
            familyName: 'student',
            mailChoice: 'never',
            practiceOf: actor.person.id,
          })
          .returning()
    const [there] = await tx
      .select()
      .from(enrolments)
      .where(and(eq(enrolments.seminarId, actor.seminar.id), eq(enrolments.personId, person!.id)))
    if (there) return there.id
    const [made] = await tx
      .insert(enrolments)
      .values({
        seminarId: actor.seminar.id,
        personId: person!.id,
        ...namesOf(person!),
        role: 'student',
        state: 'practice',
      })
      .returning()
    return made!.id
  })
}
