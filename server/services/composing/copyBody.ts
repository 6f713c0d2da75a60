import { and, eq, isNull } from 'drizzle-orm'
import type { RichNode } from '#core/contributing/richText'
import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { categories, gradingScales, outcomes, rubrics, rubricVersions } from '#server/database/schema'
import { copyStoredFile } from '#server/services/files'
import { draftOf, loadRubric, writeCriteria } from '#server/services/rubrics'
import type { ActivityBody } from '#shared/planning/composer'
import { copyText } from '#server/kinds'
import { filesIn } from './requireOwnParts'

/**
 * An activity's body for another seminar: files and rubric are copied along, category and scale are found by their
 * titles, and it is for everyone there, because people and groups are the other seminar's own. Dates are left as they are.
 */
export async function copyBody(
  tx: Db,
  body: ActivityBody,
  fromSeminarId: string,
  target: Actor,
): Promise<ActivityBody> {
  const docs = [body.brief, body.starter, ...body.prompts.map(p => p.doc)].filter(doc => doc !== null)
  const fileIds = await copyFiles(
    tx,
    [...docs.flatMap(filesIn), ...(body.spokenFileId ? [body.spokenFileId] : [])],
    target,
  )
  const own = (doc: RichNode): RichNode => withFiles(doc, fileIds)
  return {
    ...body,
    brief: own(body.brief),
    starter: body.starter && own(body.starter),
    prompts: body.prompts.map(p => ({ ...p, doc: own(p.doc) })),
    spokenFileId: body.spokenFileId ? (fileIds.get(body.spokenFileId) ?? null) : null,
    categoryId: await sameTitle(tx, categories, body.categoryId, target.seminar.id),
    gradingScaleId: await sameTitle(tx, gradingScales, body.gradingScaleId, target.seminar.id),
    rubricVersionId:
      body.rubricVersionId && (await copyRubric(tx, body.rubricVersionId, fromSeminarId, target.seminar.id)),
    unitId: null,
    audience: { kind: 'everyone' },
    jointSeminarIds: [],
    rests: [],
    review: { ...body.review, apartIn: null, sharesOf: null },
    reading: {
      ...body.reading,
      textId: body.reading.textId && (await copyText(tx, body.reading.textId, target)),
    },
  }
}

async function copyFiles(tx: Db, ids: readonly string[], target: Actor): Promise<Map<string, string>> {
  const copies = new Map<string, string>()
  if (ids.length === 0) return copies
  for (const id of new Set(ids)) {
    const copy = await copyStoredFile(tx, id, { seminarId: target.seminar.id, madeBy: target.enrolment.id })
    if (copy) copies.set(id, copy)
  }
  return copies
}

function withFiles(node: RichNode, ids: ReadonlyMap<string, string>): RichNode {
  const src = String(node.attrs?.src ?? '')
  const id = ids.get(src.replace('/api/files/', ''))
  return {
    ...node,
    ...(id && { attrs: { ...node.attrs, src: `/api/files/${id}` } }),
    ...(node.content && { content: node.content.map(child => withFiles(child, ids)) }),
  }
}

async function sameTitle(
  tx: Db,
  table: typeof categories | typeof gradingScales,
  id: string | null,
  seminarId: string,
): Promise<string | null> {
  if (!id) return null
  const [from] = await tx
    .select({ title: table.title })
    .from(table as typeof categories)
    .where(eq(table.id, id))
  const [there] = from
    ? await tx
        .select({ id: table.id })
        .from(table as typeof categories)
        .where(and(eq(table.seminarId, seminarId), eq(table.title, from.title)))
    : []
  return there?.id ?? null
}

/** The rubric in another seminar's library: the same one if it was copied before and has not been changed, else a copy. */
export async function copyRubric(
  tx: Db,
  versionId: string,
  fromSeminarId: string,
  seminarId: string,
): Promise<string | null> {
  const rubric = await loadRubric(tx, versionId)
  if (!rubric) return null
  const known = await tx.select().from(outcomes).where(eq(outcomes.seminarId, fromSeminarId))
  const draft = draftOf(rubric, known)
  const there = await tx
    .select({ versionId: rubricVersions.id })
    .from(rubricVersions)
    .innerJoin(rubrics, eq(rubrics.id, rubricVersions.rubricId))
    .where(and(eq(rubrics.seminarId, seminarId), eq(rubrics.title, rubric.title), isNull(rubrics.archivedAt)))
  const own = await tx.select().from(outcomes).where(eq(outcomes.seminarId, seminarId))
  for (const candidate of there) {
    const other = await loadRubric(tx, candidate.versionId)
    if (other && JSON.stringify(draftOf(other, own)) === JSON.stringify(draft)) return candidate.versionId
  }
  const [head] = await tx.insert(rubrics).values({ seminarId, title: rubric.title }).returning()
  const [version] = await tx
    .insert(rubricVersions)
    .values({ seminarId, rubricId: head!.id, version: 1 })
    .returning()
  await writeCriteria(tx, seminarId, version!.id, draft)
  return version!.id
}
