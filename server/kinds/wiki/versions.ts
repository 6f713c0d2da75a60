import type { ActivityActor } from '#server/access/seminar'
import { and, desc, eq, inArray } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { contributionFiles, contributions, files, pageVersions, wikiPages } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import type { AuthoredDoc, VersionIn } from './nextVersion'
import { inSpace, type PageRow } from './wikiAccess'

/** A version with its text and where its words are from. */
export interface StoredVersion extends AuthoredDoc {
  readonly id: string
  readonly number: number
}

export async function versionAt(
  db: Db,
  page: Pick<PageRow, 'id'>,
  number: number,
): Promise<StoredVersion | null> {
  const [row] = await db
    .select({
      id: pageVersions.id,
      number: pageVersions.number,
      doc: contributions.doc,
      origins: pageVersions.origins,
    })
    .from(pageVersions)
    .innerJoin(contributions, eq(contributions.id, pageVersions.id))
    .where(and(eq(pageVersions.pageId, page.id), eq(pageVersions.number, number)))
  return row ?? null
}

/** By what words that come to a page are known again: what its versions took out, and what other pages of the wiki say or said. */
export async function knownWords(tx: Db, page: PageRow): Promise<VersionIn['known']> {
  const inWiki = await tx
    .select({ id: wikiPages.id, currentId: wikiPages.currentId })
    .from(wikiPages)
    .where(and(eq(wikiPages.activityId, page.activityId), inSpace(page)))
  const currents = inWiki.filter(p => p.id !== page.id).flatMap(p => p.currentId ?? [])
  const taken = await tx
    .select({ pageId: pageVersions.pageId, gone: pageVersions.gone })
    .from(pageVersions)
    .where(
      inArray(
        pageVersions.pageId,
        inWiki.map(p => p.id),
      ),
    )
    .orderBy(desc(pageVersions.number))
  const elsewhere =
    currents.length > 0
      ? await tx
          .select({ origins: pageVersions.origins, doc: contributions.doc })
          .from(pageVersions)
          .innerJoin(contributions, eq(contributions.id, pageVersions.id))
          .where(inArray(pageVersions.id, currents))
      : []
  return {
    goneHere: taken.filter(t => t.pageId === page.id).flatMap(t => [...t.gone]),
    elsewhere,
    goneElsewhere: taken.filter(t => t.pageId !== page.id).flatMap(t => [...t.gone]),
  }
}

/** Makes the pictures of a version come with it: the writer's own, and those that stand in this wiki already. */
export async function attachPictures(
  tx: Db,
  { activity, enrolment }: ActivityActor,
  versionId: string,
  wanted: readonly string[],
): Promise<void> {
  if (wanted.length === 0) return
  const own = await tx
    .select({ id: files.id, madeBy: files.madeBy })
    .from(files)
    .where(inArray(files.id, [...wanted]))
  const standing = await tx
    .select({ id: contributionFiles.fileId })
    .from(contributionFiles)
    .innerJoin(contributions, eq(contributions.id, contributionFiles.contributionId))
    .where(and(inArray(contributionFiles.fileId, [...wanted]), eq(contributions.activityId, activity.id)))
  const may = new Set([
    ...own.filter(f => f.madeBy === enrolment.id).map(f => f.id),
    ...standing.map(f => f.id),
  ])
  if (wanted.some(id => !may.has(id)))
    throw refusedField(
      'doc',
      'pictureGone',
      'One of the pictures on this page is not there any more. Remove it or insert it again; your text is kept here.',
    )
  await tx.insert(contributionFiles).values(
    wanted.map((fileId, position) => ({
      seminarId: activity.seminarId,
      contributionId: versionId,
      fileId,
      position,
    })),
  )
}
