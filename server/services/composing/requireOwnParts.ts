import { and, eq, inArray } from 'drizzle-orm'
import { type RichNode } from '#core/contributing/richText'
import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import {
  activities,
  categories,
  enrolments,
  files,
  gradingScales,
  groupPlans,
  groups,
  rubricVersions,
  sections,
  texts,
  units,
} from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import type { ActivityBody } from '#shared/planning/composer'
import { otherSeminars } from '#server/services/planning'

/** Everything named must be this seminar's own. */
export async function requireOwnParts(
  tx: Db,
  actor: Actor,
  body: ActivityBody,
  already: readonly string[],
): Promise<void> {
  const { seminar } = actor
  const gone = (field: string) =>
    refusedField(field, 'gone', 'What you chose is no longer there. Reload the page and choose again.')
  const own = async (
    table:
      | typeof units
      | typeof categories
      | typeof gradingScales
      | typeof files
      | typeof rubricVersions
      | typeof groupPlans
      | typeof activities
      | typeof texts,
    id: string | null,
    field: string,
  ) => {
    if (id === null) return
    const [found] = await tx
      .select({ id: table.id })
      .from(table as typeof units)
      .where(and(eq(table.id, id), eq(table.seminarId, seminar.id)))
    if (!found) throw gone(field)
  }
  await own(units, body.unitId, 'unitId')
  await own(categories, body.categoryId, 'categoryId')
  await own(gradingScales, body.gradingScaleId, 'gradingScaleId')
  await own(files, body.spokenFileId, 'spokenFileId')
  await own(rubricVersions, body.rubricVersionId, 'rubricVersionId')
  await own(texts, body.reading.textId, 'reading')
  await own(groupPlans, body.review.apartIn, 'review')
  await own(activities, body.review.sharesOf, 'review')
  const { audience } = body
  const all = async (table: typeof sections | typeof groups | typeof enrolments, ids: readonly string[]) => {
    if (
      ids.length > 0 &&
      (await tx.$count(table, and(inArray(table.id, [...ids]), eq(table.seminarId, seminar.id)))) <
        new Set(ids).size
    )
      throw gone('audience')
  }
  if (audience.kind === 'sections') await all(sections, audience.sectionIds)
  if (audience.kind === 'people') await all(enrolments, audience.enrolmentIds)
  if (audience.kind === 'groups') {
    await own(groupPlans, audience.groupPlanId, 'audience')
    await all(groups, audience.groupIds)
  }
  // held with other seminars: only the actor's own, or those that take part already
  const joinable = new Set([...(await otherSeminars(tx, actor)).map(s => s.id), ...already])
  if (body.jointSeminarIds.some(id => !joinable.has(id)))
    throw refusedField(
      'jointSeminarIds',
      'notYours',
      'A discussion can be held with seminars you instruct yourself.',
    )
  const used = [body.brief, body.starter, ...body.prompts.map(p => p.doc)].flatMap(doc =>
    doc ? filesIn(doc) : [],
  )
  if (
    used.length > 0 &&
    (await tx.$count(files, and(inArray(files.id, used), eq(files.seminarId, seminar.id)))) <
      new Set(used).size
  )
    throw gone('brief')
}

/** Ids of the uploaded files a document shows. */
export function filesIn(doc: RichNode): string[] {
  const src = /^\/api\/files\/([0-9a-f-]{36})$/.exec(String(doc.attrs?.src ?? ''))?.[1]
  return [...(src ? [src] : []), ...(doc.content ?? []).flatMap(filesIn)]
}
