import { and, eq, inArray } from 'drizzle-orm'
import { v7 } from 'uuid'
import { passageTokens } from '#core/kinds/wiki/passage'
import { spread } from '#core/kinds/wiki/followAuthors'
import { PageReader } from '#core/kinds/wiki/pageText'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { contributions, pageComments, pageVersions, wikiPages } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { announce, nextSeq } from '#server/services/contributing'
import { renderDoc } from '#server/richText/renderDoc'
import { withIdempotency } from '#server/services/idempotency'
import type { PageCommentWrite } from '#shared/kinds/wiki/wiki'
import { requirePage, type PageRow } from './wikiAccess'
import { versionAt } from './versions'

/** Comments on a page or a passage of it, or answers a comment. */
export async function commentOnPage(
  db: Database,
  actor: ActivityActor,
  pageId: string,
  write: PageCommentWrite,
  now: Date,
) {
  const { page, reach } = await requirePage(db, actor, pageId, now)
  if (!reach.comment)
    throw refusedField(
      'doc',
      'notCommenting',
      'Nothing is added here any more. Your text is kept; write to your instructor if it matters.',
    )
  const rendered = renderDoc(write.doc)
  if (rendered.words === 0)
    throw refusedField('doc', 'empty', 'There are no words of your own here yet. Write a line first.')
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    if (write.parentId) await requireComment(tx, page, write.parentId)
    const current = page.versions > 0 ? await versionAt(tx, page, page.versions) : null
    const writers = write.passage && !write.parentId ? await writersOf(tx, current, write.passage.exact) : []
    const id = v7()
    await tx.insert(contributions).values({
      id,
      seminarId: actor.activity.seminarId,
      activityId: actor.activity.id,
      authorId: actor.enrolment.id,
      type: 'comment',
      state: 'shown',
      // what is commented on is the page as it stands; an answer answers the comment
      parentId: write.parentId ?? current?.id ?? null,
      threadId: write.parentId ?? current?.id ?? id,
      slot: pageId,
      openerId: isStaff(actor.enrolment) ? null : actor.enrolment.id,
      seq: await nextSeq(tx, actor.activity.id),
      doc: rendered.doc,
      html: rendered.html,
      text: rendered.text,
      words: rendered.words,
      sources: rendered.sources,
      madeAt: now,
      savedAt: now,
      shownAt: now,
    })
    await tx.insert(pageComments).values({
      id,
      seminarId: page.seminarId,
      pageId,
      answers: write.parentId,
      versionId: current?.id ?? null,
      passage: write.parentId ? null : write.passage,
      writers,
    })
    await announce(tx, { activityId: actor.activity.id, id })
    return { id }
  })
}

/** Says which version acted on a comment, or that none has. Anyone who may comment there can. */
export async function resolveComment(
  db: Database,
  actor: ActivityActor & { readonly contribution: typeof contributions.$inferSelect },
  number: number | null,
  now: Date,
) {
  const { contribution } = actor
  const [row] = await db
    .select({ comment: pageComments, page: wikiPages })
    .from(pageComments)
    .innerJoin(wikiPages, eq(wikiPages.id, pageComments.pageId))
    .where(eq(pageComments.id, contribution.id))
  if (!row) throw nothingHere()
  const { page, reach } = await requirePage(db, actor, row.page.id, now)
  if (!reach.comment) throw new Problem(409, 'notCommenting', 'Nothing is changed here any more.')
  const on = row.comment.versionId ? await numberOf(db, row.comment.versionId) : 0
  return db.transaction(async tx => {
    const version = number === null ? null : await versionAt(tx, page, number)
    if (number !== null && !version) throw nothingHere()
    if (version && version.number <= on)
      throw refusedField(
        'number',
        'tooEarly',
        'No version has been saved since this comment. Save one, then say that it acted on it.',
      )
    await tx
      .update(pageComments)
      .set({
        resolvedIn: version?.id ?? null,
        resolvedBy: version ? actor.enrolment.id : null,
        resolvedAt: version ? now : null,
      })
      .where(eq(pageComments.id, contribution.id))
    await announce(tx, { activityId: page.activityId, id: page.id })
    return { done: true }
  })
}

async function requireComment(tx: Db, page: PageRow, id: string): Promise<void> {
  const [comment] = await tx
    .select({ state: contributions.state })
    .from(pageComments)
    .innerJoin(contributions, eq(contributions.id, pageComments.id))
    .where(and(eq(pageComments.id, id), eq(pageComments.pageId, page.id)))
  if (comment?.state !== 'shown')
    throw refusedField(
      'doc',
      'withdrawn',
      'This comment is not there any more. Your text is kept here; comment on the page instead.',
    )
}

async function numberOf(db: Db, versionId: string): Promise<number> {
  const [row] = await db
    .select({ number: pageVersions.number })
    .from(pageVersions)
    .where(eq(pageVersions.id, versionId))
  return row?.number ?? 0
}

/** Whose words a passage is, by who wrote each of them. A passage that is not there is refused. */
async function writersOf(
  tx: Db,
  current: Awaited<ReturnType<typeof versionAt>>,
  exact: string,
): Promise<string[]> {
  const text = new PageReader().read(current?.doc ?? { type: 'doc' })
  const range = passageTokens(text, exact)
  if (!current || !range)
    throw refusedField(
      'passage',
      'passageGone',
      'The passage is no longer on the page. Choose it again, or comment on the page.',
    )
  const origins = new Set(
    spread(current.origins, text.tokens.length).filter(
      (_, i) => i >= range[0] && i < range[1] && text.tokens[i]!.kind === 'word',
    ),
  )
  const writers = await tx
    .selectDistinct({ id: contributions.authorId })
    .from(contributions)
    .where(inArray(contributions.id, [...origins]))
  return writers.map(w => w.id)
}
