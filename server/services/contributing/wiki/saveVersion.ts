import { and, eq, gt, inArray, isNull } from 'drizzle-orm'
import { v7 } from 'uuid'
import { plainText, type RichNode } from '#core/contributing/richText'
import { comparePages } from '#core/contributing/wiki/comparePages'
import { followAuthors } from '#core/contributing/wiki/followAuthors'
import { mergePages, type Merged, type Overlap } from '#core/contributing/wiki/mergePages'
import { docOf, PageReader, sameTokens, wordsIn } from '#core/contributing/wiki/pageText'
import { linkedTitles } from '#core/contributing/wiki/wikiSettings'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { contributions, pageComments, pageVersions, pageWriters, wikiPages } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { announce } from '#server/services/contributing/announce'
import { draftAt } from '#server/services/contributing/writing/draft'
import { nextSeq } from '#server/services/contributing/numbering'
import { countSources, renderDoc } from '#server/services/contributing/renderDoc'
import { withIdempotency } from '#server/services/idempotency'
import { PageDoc } from '#shared/contributing/richDoc'
import type { Overlaps, VersionWrite } from '#shared/contributing/wiki'
import { peopleIn, requireMayWrite, requirePage, type PageRow } from './wikiAccess'
import { attachPictures, goneFor, picturesIn, versionAt, type StoredVersion } from './versions'

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
        'The version this was written from is not there. Load the page anew; your text is kept here.',
      )
    const reader = new PageReader()
    const current = page.versions > 0 ? await versionAt(tx, page, page.versions) : null
    const before = current && { text: reader.read(current.doc), runs: current.origins }
    const text =
      write.base === page.versions
        ? reader.read(write.doc)
        : await joined(tx, actor, page, current!, write, reader)
    const doc = PageDoc.parse(docOf(text.tokens))
    const next = reader.read(doc)
    if (page.versions === 0 && plainText(doc) === '')
      throw refusedField('doc', 'empty', 'There are no words here yet. Write a line or two first.')
    const comparison = before && comparePages(before.text, next)
    if (before && sameTokens(before.text.tokens, next.tokens))
      throw refusedField('doc', 'nothingNew', 'Nothing has changed since the last version.')
    const draft = await draftAt(tx, actor, { parentId: null, slot: pageId })
    const id = draft?.id ?? v7()
    const credited = followAuthors(before, next, await goneFor(tx, reader, page), id, comparison ?? undefined)
    const number = page.versions + 1
    const rendered = renderDoc(doc)
    const columns = {
      type: 'pageVersion' as const,
      state: 'shown' as const,
      detail: {},
      openerId: isStaff(actor.enrolment) ? null : actor.enrolment.id,
      threadId: id,
      doc,
      html: rendered.html,
      text: rendered.text,
      words: credited.written, // what counts as its author's is what they wrote in it
      sources: Math.max(0, rendered.sources - (current ? countSources(current.doc) : 0)),
      figures: Math.max(0, picturesIn(doc).length - (current ? picturesIn(current.doc).length : 0)),
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
      words: wordsIn(next.tokens),
      written: credited.written,
      added: comparison?.added ?? credited.written,
      removed: comparison?.removed ?? 0,
      moved: comparison?.wordsMoved ?? 0,
      origins: credited.runs,
      gone: credited.gone,
    })
    await attachPictures(tx, actor, id, doc)
    await tx
      .update(wikiPages)
      .set({ currentId: id, versions: number, links: linkedTitles(doc) })
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
    await tx
      .delete(pageWriters)
      .where(and(eq(pageWriters.pageId, pageId), eq(pageWriters.enrolmentId, actor.enrolment.id)))
    await announce(tx, { activityId: actor.activity.id, id })
    return { number, id, joined: write.base !== page.versions }
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

async function joined(
  tx: Db,
  actor: ActivityActor,
  page: PageRow,
  current: StoredVersion,
  write: Saving,
  reader: PageReader,
): Promise<Merged['text']> {
  const base = write.base > 0 ? await versionAt(tx, page, write.base) : null
  const sides = [reader.read(base?.doc ?? EMPTY), reader.read(write.doc), reader.read(current.doc)] as const
  const open = mergePages(reader, ...sides)
  // a choice holds for the very words it was made between, whatever was saved elsewhere on the page since
  const choices = open.overlaps
    .map(said)
    .map(o => write.chosen.find(c => c.was === o.was && c.mine === o.mine && c.theirs === o.theirs)?.choice)
  const merged = open.overlaps.length > 0 ? mergePages(reader, ...sides, choices) : open
  if (choices.some(c => c === undefined)) {
    const theirs: Overlaps = {
      by: await savedSince(tx, actor, page, write.base),
      overlaps: merged.overlaps.map(said),
    }
    throw new Problem(
      409,
      'overlaps',
      `${new Intl.ListFormat('en-GB').format(theirs.by)} changed the same words meanwhile. Both texts are here; choose for each place, then save.`,
      { theirs },
    )
  }
  return merged.text
}

const EMPTY: RichNode = { type: 'doc' }

function said({ base, mine, theirs }: Overlap) {
  const words = (tokens: Overlap['mine']) => plainText(docOf(tokens))
  return { was: words(base), mine: words(mine), theirs: words(theirs) }
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
