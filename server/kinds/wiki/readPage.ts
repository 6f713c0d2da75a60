import { detailOf } from '#core/kinds/contributionDetail'
import { and, asc, desc, eq, inArray } from 'drizzle-orm'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import { talkOf } from '#core/contributing/talkSettings'
import type { Db } from '#server/database/client'
import { contributions, pageComments, pageVersions } from '#server/database/schema'
import { changeableUntil } from '#server/services/contributing'
import { seminarsOf } from '#server/services/planning'
import type { PageComment, PageView, VersionView } from '#shared/kinds/wiki/wiki'
import { peopleIn, requirePage, type PageRow } from './wikiAccess'

type Names = Awaited<ReturnType<typeof peopleIn>>

/** A page with its history and the talk about it, to somebody who may read it; what the reader has begun, to them alone. */
export async function readPage(db: Db, actor: ActivityActor, pageId: string, now: Date): Promise<PageView> {
  const { page } = await requirePage(db, actor, pageId, now)
  const people = await peopleIn(db, await seminarsOf(db, actor.activity), actor.enrolment)
  const [rows, comments, [draft], [current]] = await Promise.all([
    versionRows(db, [pageId]),
    commentsOf(db, actor, page, people, now),
    db
      .select()
      .from(contributions)
      .where(
        and(
          eq(contributions.activityId, page.activityId),
          eq(contributions.authorId, actor.enrolment.id),
          eq(contributions.state, 'draft'),
          eq(contributions.slot, pageId),
        ),
      ),
    page.currentId
      ? db
          .select({ html: contributions.html, doc: contributions.doc })
          .from(contributions)
          .where(eq(contributions.id, page.currentId))
      : [],
  ])
  return {
    id: page.id,
    title: page.title,
    html: current?.html ?? '',
    doc: current?.doc ?? { type: 'doc' },
    number: page.versions,
    versions: rows.reverse().map(({ pageId: _, authorId, savedAt, ...v }) => ({
      ...v,
      author: people.get(authorId)!,
      savedAt: savedAt!.toISOString(),
    })),
    comments,
    draft: draft
      ? {
          doc: draft.doc,
          base: detailOf(draft, 'pageVersion').page?.base ?? 0,
          savedAt: draft.savedAt.toISOString(),
          version: draft.version,
        }
      : null,
  }
}

/** Versions of some pages in their order, without their documents. */
export const versionRows = (db: Db, pageIds: readonly string[]) =>
  db
    .select({
      id: pageVersions.id,
      pageId: pageVersions.pageId,
      number: pageVersions.number,
      base: pageVersions.base,
      authorId: contributions.authorId,
      savedAt: contributions.shownAt,
      summary: pageVersions.summary,
      words: pageVersions.words,
      written: pageVersions.written,
      added: pageVersions.added,
      removed: pageVersions.removed,
      moved: pageVersions.moved,
      restores: pageVersions.restores,
    })
    .from(pageVersions)
    .innerJoin(contributions, eq(contributions.id, pageVersions.id))
    .where(inArray(pageVersions.pageId, [...pageIds]))
    .orderBy(asc(pageVersions.number))

/** One version whole, with where its words are from. */
export async function readVersion(
  db: Db,
  actor: ActivityActor,
  pageId: string,
  number: number,
  now: Date,
): Promise<VersionView> {
  await requirePage(db, actor, pageId, now)
  const [row] = await db
    .select({
      number: pageVersions.number,
      origins: pageVersions.origins,
      doc: contributions.doc,
      html: contributions.html,
    })
    .from(pageVersions)
    .innerJoin(contributions, eq(contributions.id, pageVersions.id))
    .where(and(eq(pageVersions.pageId, pageId), eq(pageVersions.number, number)))
  if (!row) throw nothingHere()
  return { ...row, origins: row.origins.map(([origin, tokens]) => [origin, tokens]) }
}

/** Comments in the order they were made. Withdrawn ones leave their place where something hangs below them. */
async function commentsOf(
  db: Db,
  actor: ActivityActor,
  page: PageRow,
  people: Names,
  now: Date,
): Promise<PageComment[]> {
  const { activity, enrolment } = actor
  const rows = await db
    .select({ c: contributions, extra: pageComments })
    .from(pageComments)
    .innerJoin(contributions, eq(contributions.id, pageComments.id))
    .where(and(eq(pageComments.pageId, page.id), inArray(contributions.state, ['shown', 'withdrawn'])))
    .orderBy(asc(contributions.shownAt), asc(contributions.id))
  const versionIds = rows.flatMap(r => [r.extra.versionId, r.extra.resolvedIn].filter(x => x !== null))
  const numbers = new Map(
    versionIds.length > 0
      ? (
          await db
            .select({ id: pageVersions.id, number: pageVersions.number, authorId: contributions.authorId })
            .from(pageVersions)
            .innerJoin(contributions, eq(contributions.id, pageVersions.id))
            .where(inArray(pageVersions.id, versionIds))
            .orderBy(desc(pageVersions.number))
        ).map(v => [v.id, v])
      : [],
  )
  const answered = new Set(rows.filter(r => r.c.state === 'shown').map(r => r.extra.answers))
  const minutes = talkOf(activity.settings).withdrawMinutes
  return rows
    .filter(r => r.c.state === 'shown' || answered.has(r.c.id))
    .map(({ c, extra }) => {
      const withdrawn = c.state === 'withdrawn'
      const isOwn = c.authorId === enrolment.id
      const by = extra.resolvedIn ? numbers.get(extra.resolvedIn) : undefined
      return {
        id: c.id,
        parentId: extra.answers,
        author: people.get(c.authorId)!,
        html: withdrawn ? '' : c.html,
        shownAt: c.shownAt!.toISOString(),
        withdrawn,
        mayWithdraw:
          !withdrawn &&
          (isStaff(enrolment) || (isOwn && changeableUntil(enrolment, c.shownAt!, minutes) >= now)),
        passage: withdrawn ? null : extra.passage,
        on: extra.versionId ? (numbers.get(extra.versionId)?.number ?? null) : null,
        resolved:
          by && extra.resolvedBy
            ? {
                number: by.number,
                by: people.get(extra.resolvedBy)!,
                at: extra.resolvedAt!.toISOString(),
                writer: people.get(by.authorId)!,
              }
            : null,
      }
    })
}
