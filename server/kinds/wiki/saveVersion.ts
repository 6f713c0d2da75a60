import { and, eq, gt, inArray, isNull } from 'drizzle-orm'
import { v7 } from 'uuid'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { contributions, pageComments, pageVersions, pageWriters, wikiPages } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { announce, draftAt, nextSeq } from '#server/services/contributing'
import { withIdempotency } from '#server/services/idempotency'
import type { Overlaps, VersionWrite } from '#shared/kinds/wiki/wiki'
import { makeNextVersion } from './inThread'
import type { SaidOverlap } from './nextVersion'
import { attachPictures, knownWords, versionAt } from './versions'
import { peopleIn, requireMayWrite, requirePage, type PageRow } from './wikiAccess'

interface Saving extends VersionWrite {
  readonly restores?: number
}

/**
 * Saves a version of a page. One after the other: each is written on the one before. What others saved since the writer
 * began is joined in; where both changed the same words, nothing is saved and every such place goes back to the writer
 * with both sides, until they have chosen between the very words that stand.
 */
export async function saveVersion(
  db: Database,
  actor: ActivityActor,
  pageId: string,
  write: Saving,
  now: Date,
) {
  const { access, reach } = await requirePage(db, actor, pageId, now)
  requireMayWrite(access, reach, actor)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const page = await lockPage(tx, pageId)
    if (write.base > page.versions)
      throw refusedField(
        'doc',
        'noBase',
        'The version this was written from is not there. Load the page again; your text is kept here.',
      )
    const draft = await draftAt(tx, actor, { parentId: null, slot: pageId })
    const id = draft?.id ?? v7()
    const isOnCurrent = write.base === page.versions
    const made = await makeNextVersion({
      id,
      written: write.doc,
      base: isOnCurrent || write.base === 0 ? null : ((await versionAt(tx, page, write.base))?.doc ?? null),
      current: page.versions > 0 ? await versionAt(tx, page, page.versions) : null,
      isOnCurrent,
      chosen: write.chosen,
      known: await knownWords(tx, page),
    })
    if (made.as === 'empty')
      throw refusedField('doc', 'empty', 'There are no words here yet. Write a line or two first.')
    if (made.as === 'overlaps') throw await overlap(tx, actor, page, write.base, made.overlaps)
    if (made.as === 'same') {
      if (isOnCurrent) throw refusedField('doc', 'nothingNew', 'Nothing has changed since the last version.')
      // what the writer kept of both is what stands already: their draft has served
      if (draft) await tx.delete(contributions).where(eq(contributions.id, id))
      await stopWriting(tx, actor, pageId)
      return { number: page.versions, id: page.currentId!, joined: true, isNew: false }
    }
    const number = page.versions + 1
    const { credited } = made
    const columns = {
      type: 'pageVersion' as const,
      state: 'shown' as const,
      detail: {},
      openerId: isStaff(actor.enrolment) ? null : actor.enrolment.id,
      threadId: id,
      doc: made.doc,
      html: made.html,
      text: made.text,
      words: credited.written, // what counts as its author's is what they wrote in it
      sources: made.sources,
      figures: made.figures,
      savedAt: now,
      shownAt: now,
      seq: await nextSeq(tx, actor.activity.id),
    }
    if (draft)
      await tx
        .update(contributions)
        .set({ ...columns, version: draft.version + 1 })
        .where(eq(contributions.id, id))
    else
      await tx.insert(contributions).values({
        id,
        slot: pageId,
        seminarId: actor.activity.seminarId,
        activityId: actor.activity.id,
        authorId: actor.enrolment.id,
        parentId: null,
        madeAt: now,
        ...columns,
      })
    await tx.insert(pageVersions).values({
      id,
      seminarId: page.seminarId,
      pageId,
      number,
      base: write.base,
      summary: write.summary,
      restores: write.restores ?? null,
      words: made.words,
      written: credited.written,
      added: made.added,
      removed: made.removed,
      moved: made.moved,
      origins: credited.runs,
      gone: credited.gone,
    })
    await attachPictures(tx, actor, id, made.pictures)
    await tx
      .update(wikiPages)
      .set({ currentId: id, versions: number, links: [...made.links] })
      .where(eq(wikiPages.id, pageId))
    if (write.actsOn.length > 0) {
      await tx
        .update(pageComments)
        .set({ resolvedIn: id, resolvedBy: actor.enrolment.id, resolvedAt: now })
        .where(
          and(
            eq(pageComments.pageId, pageId),
            inArray(pageComments.id, write.actsOn),
            isNull(pageComments.resolvedIn),
          ),
        )
    }
    await stopWriting(tx, actor, pageId)
    await announce(tx, { activityId: actor.activity.id, id })
    return { number, id, joined: !isOnCurrent, isNew: true }
  })
}

/** Saves an earlier version's text again, as the newest. */
export async function restoreVersion(
  db: Database,
  actor: ActivityActor,
  pageId: string,
  number: number,
  write: { readonly key: string; readonly base: number },
  now: Date,
) {
  const { page } = await requirePage(db, actor, pageId, now)
  const version = await versionAt(db, page, number)
  if (!version) throw nothingHere()
  if (write.base !== page.versions)
    throw new Problem(
      409,
      'changedMeanwhile',
      'Somebody saved a version meanwhile. Look at it first; then bring the earlier one back if you still want to.',
    )
  return saveVersion(
    db,
    actor,
    pageId,
    {
      key: write.key,
      base: write.base,
      doc: version.doc,
      summary: `brings back version ${number}`,
      actsOn: [],
      chosen: [],
      restores: number,
    },
    now,
  )
}

const stopWriting = (tx: Db, actor: ActivityActor, pageId: string) =>
  tx
    .delete(pageWriters)
    .where(and(eq(pageWriters.pageId, pageId), eq(pageWriters.enrolmentId, actor.enrolment.id)))

async function overlap(
  tx: Db,
  actor: ActivityActor,
  page: PageRow,
  base: number,
  overlaps: readonly SaidOverlap[],
): Promise<Problem> {
  const theirs: Overlaps = { by: await savedSince(tx, actor, page, base), overlaps: [...overlaps] }
  return new Problem(
    409,
    'overlaps',
    `${new Intl.ListFormat('en-GB').format(theirs.by)} changed the same words meanwhile. Both texts are here; choose for each place, then save.`,
    { theirs },
  )
}

/** Given names of those who saved versions since one, in the order they first saved. */
async function savedSince(tx: Db, actor: ActivityActor, page: PageRow, base: number): Promise<string[]> {
  const rows = await tx
    .select({ authorId: contributions.authorId })
    .from(pageVersions)
    .innerJoin(contributions, eq(contributions.id, pageVersions.id))
    .where(and(eq(pageVersions.pageId, page.id), gt(pageVersions.number, base)))
    .orderBy(pageVersions.number)
  const people = await peopleIn(
    tx,
    [...new Set([actor.activity.seminarId, actor.enrolment.seminarId])],
    actor.enrolment,
  )
  return [
    ...new Set(
      rows.map(r =>
        r.authorId === actor.enrolment.id
          ? 'You, in another window,'
          : (people.get(r.authorId)?.givenName ?? 'Somebody'),
      ),
    ),
  ]
}

async function lockPage(tx: Db, pageId: string): Promise<PageRow> {
  const [page] = await tx
    .select()
    .from(wikiPages)
    .where(and(eq(wikiPages.id, pageId), isNull(wikiPages.removedAt)))
    .for('update')
  if (!page) throw nothingHere()
  return page
}
