import { detailOf, takenUpBy, titleOf } from '#core/kinds/contributionDetail'
import type { StoredNote } from '#core/kinds/reading/storedNote'
import { requireDraftRoom } from '#server/services/contributing/draftQuota'
import { picturesIn, withPicturesOf } from '#core/contributing/picturesIn'
import { and, eq, isNull, ne, sql } from 'drizzle-orm'
import type { ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { lock } from '#server/database/locks'
import { contributions, visits } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import type { AttachedFile, DraftView, DraftWrite } from '#shared/contributing/thread'
import { attachFiles } from '#server/services/contributing/attach'
import { renderDoc, type RenderedDoc } from '#server/richText/renderDoc'
import { attachedFiles } from '#server/services/contributing/storedContributions'
import { requireWriteTarget } from './writeTarget'

interface DraftKey {
  readonly parentId: string | null
  readonly slot: string
}

/** The writer's draft at one place. Until the transaction ends nobody else writes there, also when there is none yet. */
export async function draftAt(tx: Db, actor: ActivityActor, key: DraftKey) {
  await lock(tx, 'draft', `${actor.enrolment.id}:${actor.activity.id}:${key.parentId ?? ''}:${key.slot}`)
  const [draft] = await tx.select().from(contributions).where(at(actor, key)).for('update')
  return draft
}

const at = (actor: ActivityActor, { parentId, slot }: DraftKey) =>
  and(
    eq(contributions.activityId, actor.activity.id),
    eq(contributions.authorId, actor.enrolment.id),
    eq(contributions.state, 'draft'),
    eq(contributions.slot, slot),
    ne(contributions.type, 'review'), // a review is written in its own room
    parentId ? eq(contributions.parentId, parentId) : isNull(contributions.parentId),
  )

/** Saves what is being written. A version saved elsewhere meanwhile is not overwritten: both come back to the writer. */
export function saveDraft(
  db: Database,
  actor: ActivityActor,
  write: DraftWrite,
  now: Date,
): Promise<DraftView> {
  const rendered = renderDoc(withPicturesOf(write.doc, write.fileIds))
  return db.transaction(async tx => {
    const current = await draftAt(tx, actor, write)
    if ((current?.version ?? null) !== write.baseVersion && current && !saysTheSame(current, rendered)) {
      throw new Problem(
        409,
        'changedMeanwhile',
        'This draft was changed in another window. Both texts are here; keep the one you want.',
        { theirs: draftView(current, await filesOf(tx, current.id)) },
      )
    }
    const target = await requireWriteTarget(tx, actor, write, now)
    if (!current) await requireDraftRoom(tx, actor)
    const columns = {
      type: target.type,
      detail: target.detail,
      promptId: target.promptId,
      openerId: target.openerId,
      threadId: target.threadId,
      doc: rendered.doc,
      html: rendered.html,
      text: rendered.text,
      words: rendered.words,
      sources: rendered.sources,
      savedAt: now,
    }
    const [stored] = current
      ? await tx
          .update(contributions)
          .set({ ...columns, version: current.version + 1 })
          .where(eq(contributions.id, current.id))
          .returning()
      : await tx
          .insert(contributions)
          .values({
            ...columns,
            state: 'draft',
            slot: write.slot,
            seminarId: actor.seminar.id,
            activityId: actor.activity.id,
            authorId: actor.enrolment.id,
            parentId: write.parentId,
            madeAt: now,
          })
          .returning()
    await attachFiles(tx, actor, stored!.id, write.fileIds)
    return draftView(stored!, await filesOf(tx, stored!.id))
  })
}

const saysTheSame = (a: Pick<RenderedDoc, 'text' | 'doc'>, b: Pick<RenderedDoc, 'text' | 'doc'>) =>
  a.text === b.text && picturesIn(a.doc).join() === picturesIn(b.doc).join()

const filesOf = async (db: Db, id: string) => (await attachedFiles(db, { ids: [id] })).get(id) ?? []

export async function discardDraft(
  db: Database,
  actor: ActivityActor,
  key: DraftKey,
): Promise<{ done: boolean }> {
  await db.delete(contributions).where(at(actor, key))
  return { done: true }
}

/** Notes up to which place the reader has seen the activity; never back. */
export async function recordVisit(
  db: Database,
  actor: ActivityActor,
  seq: number,
  now: Date,
): Promise<{ done: boolean }> {
  await db
    .insert(visits)
    .values({
      seminarId: actor.seminar.id,
      activityId: actor.activity.id,
      enrolmentId: actor.enrolment.id,
      seenUntil: now,
      seenSeq: seq,
    })
    .onConflictDoUpdate({
      target: [visits.activityId, visits.enrolmentId],
      set: { seenUntil: now, seenSeq: sql`greatest(${visits.seenSeq}, ${seq})` },
    })
  return { done: true }
}

export function draftView(d: typeof contributions.$inferSelect, files: readonly AttachedFile[]): DraftView {
  const { term } = detailOf(d, 'term')
  const { note } = detailOf(d, 'note')
  const takesUp = takenUpBy(d)
  return {
    id: d.id,
    parentId: d.parentId,
    slot: d.slot,
    promptId: d.promptId,
    title: titleOf(d),
    term: term ? { ...term, forms: [...term.forms] } : null,
    note: note ? noteDetail(note) : null,
    files: [...files],
    doc: d.doc,
    words: d.words,
    version: d.version,
    savedAt: d.savedAt.toISOString(),
    takesUp: takesUp ? { contributionId: takesUp.contributionId, exact: takesUp.exact } : null,
  }
}

const noteDetail = ({
  kind,
  part,
  passage,
  area,
  time,
  tags,
  to,
}: StoredNote): NonNullable<DraftView['note']> =>
  // a copy may be changed: the type of what is stored is read-only, that of the contract is not
  structuredClone({ kind, part, passage, area, time, tags, to }) as never
