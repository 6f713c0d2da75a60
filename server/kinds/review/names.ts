import type { ActivityActor } from '#server/access/seminar'
import { and, eq, inArray, ne } from 'drizzle-orm'
import { nameFinder, type FoundName, type KnownPerson } from '#core/kinds/review/findNames'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { Db } from '#server/database/client'
import { enrolments, files, persons } from '#server/database/schema'
import { seminarsOf } from '#server/services/planning'

/** Students a text must not name: all of those who could be author or reviewer, so that the answer gives nobody away. */
export async function knownPeople(db: Db, actor: Pick<ActivityActor, 'activity'>): Promise<KnownPerson[]> {
  return db
    .select({
      id: enrolments.id,
      givenName: enrolments.givenName,
      familyName: enrolments.familyName,
      email: persons.email,
      studentNumber: enrolments.studentNumber,
    })
    .from(enrolments)
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(
      and(
        inArray(enrolments.seminarId, await seminarsOf(db, actor.activity)),
        eq(enrolments.role, 'student'),
        ne(enrolments.state, 'practice'),
      ),
    )
}

/**
 * What in a text, and in the documents and papers that come with it, tells who wrote it or about whom; and which of its
 * papers cannot be looked into.
 */
export async function namesIn(
  db: Db,
  actor: ActivityActor,
  { text, fileIds }: { readonly text: string; readonly fileIds: readonly string[] },
): Promise<{ found: FoundName[]; notSearched: string[] }> {
  const [people, documents] = await Promise.all([
    knownPeople(db, actor),
    fileIds.length > 0
      ? db
          .select({ html: files.textHtml, words: files.paperWords, name: files.name, type: files.type })
          .from(files)
          .where(and(inArray(files.id, [...fileIds]), eq(files.madeBy, actor.enrolment.id)))
      : [],
  ])
  const findNames = nameFinder(people)
  // readers get files under neutral names, so that what a file is called gives nobody away
  const others = documents.flatMap(d => [d.html?.replace(/<[^>]+>/g, ' ') ?? '', d.words ?? ''])
  return {
    found: [
      ...findNames(text, actor.enrolment.id),
      ...others.flatMap(t => findNames(t, actor.enrolment.id).map(f => ({ ...f, start: 0 }))),
    ].slice(0, 30),
    notSearched: documents.filter(d => d.type === 'application/pdf' && !d.words).map(d => d.name),
  }
}

export const textOfDoc = (doc: unknown): string => plainText(doc as RichNode)
