import type { ActivityActor } from '#server/access/seminar'
import { and, desc, eq, inArray } from 'drizzle-orm'
import type { RichNode } from '#core/contributing/richText'
import { asGone, GoneWords, type GoneRun, type Runs } from '#core/contributing/wiki/followAuthors'
import { PageReader } from '#core/contributing/wiki/pageText'
import type { Db } from '#server/database/client'
import { contributionFiles, contributions, files, pageVersions, wikiPages } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { inSpace, type PageRow } from './wikiAccess'

/** A version with its text and where its words are from. */
export interface StoredVersion {
  readonly id: string
  readonly number: number
  readonly doc: RichNode
  readonly origins: Runs
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

/** Everything by which words that come to a page are known again: what its versions took out, and what other pages of the wiki say or said. */
export async function goneFor(tx: Db, reader: PageReader, page: PageRow): Promise<GoneWords> {
  const inWiki = await tx
    .select({ id: wikiPages.id, currentId: wikiPages.currentId })
    .from(wikiPages)
    .where(and(eq(wikiPages.activityId, page.activityId), inSpace(page)))
  const currents = inWiki.filter(p => p.id !== page.id).flatMap(p => p.currentId ?? [])
  const [taken, standing] = await Promise.all([
    tx
      .select({ pageId: pageVersions.pageId, gone: pageVersions.gone })
      .from(pageVersions)
      .where(
        inArray(
          pageVersions.pageId,
          inWiki.map(p => p.id),
        ),
      )
      .orderBy(desc(pageVersions.number)),
    currents.length > 0
      ? tx
          .select({ origins: pageVersions.origins, doc: contributions.doc })
          .from(pageVersions)
          .innerJoin(contributions, eq(contributions.id, pageVersions.id))
          .where(inArray(pageVersions.id, currents))
      : [],
  ])
  const own = taken.filter(t => t.pageId === page.id).flatMap(t => [...t.gone])
  const others = taken.filter(t => t.pageId !== page.id).flatMap(t => [...t.gone])
  const elsewhere: GoneRun[] = standing.flatMap(s => asGone(reader.read(s.doc), s.origins))
  return new GoneWords(reader, [...own, ...elsewhere, ...others])
}

/** Makes the pictures of a version come with it: the writer's own, and those that stand in this wiki already. */
export async function attachPictures(
  tx: Db,
  { activity, enrolment }: ActivityActor,
  versionId: string,
  doc: RichNode,
): Promise<void> {
  const wanted = picturesIn(doc)
  if (wanted.length === 0) return
  const own = await tx
    .select({ id: files.id, madeBy: files.madeBy })
    .from(files)
    .where(inArray(files.id, wanted))
  const standing = await tx
    .select({ id: contributionFiles.fileId })
    .from(contributionFiles)
    .innerJoin(contributions, eq(contributions.id, contributionFiles.contributionId))
    .where(and(inArray(contributionFiles.fileId, wanted), eq(contributions.activityId, activity.id)))
  const may = new Set([
    ...own.filter(f => f.madeBy === enrolment.id).map(f => f.id),
    ...standing.map(f => f.id),
  ])
  if (wanted.some(id => !may.has(id)))
    throw refusedField(
      'doc',
      'pictureGone',
      'One of the pictures on this page is not there any more. Take it out or put it in again; your text is kept here.',
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

export function picturesIn(node: RichNode): string[] {
  const own =
    node.type === 'image'
      ? [/^\/api\/files\/([0-9a-f-]{36})$/.exec(String(node.attrs?.src ?? ''))?.[1]].filter(
          x => x !== undefined,
        )
      : []
  return [...new Set([...own, ...(node.content ?? []).flatMap(picturesIn)])]
}
