import { and, eq, inArray, or } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { contributions, pageComments, pageVersions, wikiPages } from '#server/database/schema'
import type { RecordItem } from '#shared/marking/desk'
import { compareVersions } from './inThread'

type Change = Pick<RecordItem, 'change' | 'about'> & { readonly text?: string }

/**
 * What somebody did in a wiki, contribution by contribution: of a version what it changed against the one before, with the
 * words it added as the text that can be cited, a passage a line; of a comment the page and passage it is on.
 */
export async function changesOf(db: Db, ids: readonly string[]): Promise<Map<string, Change>> {
  if (ids.length === 0) return new Map()
  const [versions, comments] = await Promise.all([
    db
      .select({
        id: pageVersions.id,
        pageId: pageVersions.pageId,
        page: wikiPages.title,
        number: pageVersions.number,
        summary: pageVersions.summary,
        added: pageVersions.added,
        removed: pageVersions.removed,
        moved: pageVersions.moved,
        doc: contributions.doc,
      })
      .from(pageVersions)
      .innerJoin(wikiPages, eq(wikiPages.id, pageVersions.pageId))
      .innerJoin(contributions, eq(contributions.id, pageVersions.id))
      .where(inArray(pageVersions.id, [...ids])),
    db
      .select({
        id: pageComments.id,
        pageId: pageComments.pageId,
        page: wikiPages.title,
        passage: pageComments.passage,
        resolvedIn: pageComments.resolvedIn,
      })
      .from(pageComments)
      .innerJoin(wikiPages, eq(wikiPages.id, pageComments.pageId))
      .where(inArray(pageComments.id, [...ids])),
  ])
  const wanted = versions
    .filter(v => v.number > 1)
    .map(v => and(eq(pageVersions.pageId, v.pageId), eq(pageVersions.number, v.number - 1)))
  const resolved = comments.flatMap(c => c.resolvedIn ?? [])
  const [before, numbers] = await Promise.all([
    wanted.length > 0
      ? db
          .select({ pageId: pageVersions.pageId, number: pageVersions.number, doc: contributions.doc })
          .from(pageVersions)
          .innerJoin(contributions, eq(contributions.id, pageVersions.id))
          .where(or(...wanted))
      : [],
    resolved.length > 0
      ? db
          .select({ id: pageVersions.id, number: pageVersions.number })
          .from(pageVersions)
          .where(inArray(pageVersions.id, resolved))
      : [],
  ])
  const found = new Map<string, Change>()
  const changes = await compareVersions(
    versions.map(v => ({
      before: before.find(b => b.pageId === v.pageId && b.number === v.number - 1)?.doc ?? null,
      after: v.doc,
    })),
  )
  versions.forEach(({ id, doc: _, ...version }, i) => {
    const { blocks, text } = changes[i]!
    found.set(id, { change: { ...version, blocks: [...blocks] }, about: null, text })
  })
  for (const { id, page, pageId, passage, resolvedIn } of comments) {
    found.set(id, {
      change: null,
      about: {
        page,
        pageId,
        passage: passage?.exact ?? null,
        actedOn: numbers.find(n => n.id === resolvedIn)?.number ?? null,
      },
    })
  }
  return found
}
