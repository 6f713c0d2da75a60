import { detailOf } from '#core/kinds/contributionDetail'
import { and, eq, lte } from 'drizzle-orm'
import { v7 } from 'uuid'
import { KINDS } from '#core/kinds'
import { withPicturesOf } from '#core/contributing/picturesIn'
import { talkOf } from '#core/contributing/talkSettings'
import { isStaff, type ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { activities, contributions } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { announce } from '#server/services/contributing/announce'
import { withIdempotency } from '#server/services/idempotency'
import type { PostWrite } from '#shared/contributing/thread'
import { attachFiles } from '#server/services/contributing/attach'
import { hooksOf } from '#server/services/contributing/kindHooks'
import { draftAt } from './draft'
import { nextSeq } from '#server/services/contributing/numbering'
import { renderDoc } from '#server/richText/renderDoc'
import { isRunning } from '#server/services/people'
import { doEach, mayBeTried } from '#server/services/dueWork'
import { requireWriteTarget } from './writeTarget'

/**
 * Shows a contribution, or hands it in where staff see it first or it waits for its time. A draft begun at
 * the same place becomes it: one row, one life.
 */
export function postContribution(
  db: Database,
  actor: ActivityActor,
  write: PostWrite,
  now: Date,
  { isImported = false } = {}, // written elsewhere: it is read here and counts for nothing
) {
  const rendered = renderDoc(withPicturesOf(write.doc, write.fileIds))
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const { handIn } = hooksOf(actor.activity.kind)
    if (rendered.words === 0 && !handIn)
      throw refusedField(
        'doc',
        'empty',
        'There are no words of your own here yet. Write a line or two first.',
      )
    const target = await requireWriteTarget(tx, actor, write, now, true)
    const draft = await draftAt(tx, actor, write)
    const id = draft?.id ?? v7()
    const handedIn = handIn ? await handIn(tx, actor, write, rendered, now) : null
    const at = handedIn?.at ?? now
    const detail = {
      ...target.detail,
      ...(handedIn && { handIn: { ...detailOf(target, 'entry').handIn, way: handedIn.way } }),
      ...(isImported && { imported: true as const }),
    }
    const state = stateOf(actor, write, now)
    const columns = {
      type: target.type,
      state,
      detail,
      promptId: target.promptId,
      openerId: target.openerId,
      threadId: target.threadId ?? id,
      ...columnsOf(rendered),
      savedAt: now,
      showAt: state === 'scheduled' ? new Date(write.showAt!) : null,
      shownAt: state === 'scheduled' ? null : at, // handed in now, also where it waits for approval: waiting does not make it late
      seq: state === 'shown' ? await nextSeq(tx, actor.activity.id) : null,
    }
    if (draft)
      await tx
        .update(contributions)
        .set({ ...columns, version: draft.version + 1 })
        .where(eq(contributions.id, id))
    else
      await tx.insert(contributions).values({
        id,
        slot: write.slot,
        seminarId: actor.seminar.id,
        activityId: actor.activity.id,
        authorId: actor.enrolment.id,
        parentId: write.parentId,
        madeAt: now,
        ...columns,
      })
    await attachFiles(tx, actor, id, write.fileIds)
    await announce(tx, { activityId: actor.activity.id, id })
    return { id, shownAt: (columns.showAt ?? at).toISOString(), state }
  })
}

function stateOf(
  { activity, enrolment }: ActivityActor,
  write: PostWrite,
  now: Date,
): 'shown' | 'awaitingApproval' | 'scheduled' {
  if (write.showAt && new Date(write.showAt) > now) {
    if (write.parentId !== null || !KINDS[activity.kind].canWait)
      throw refusedField(
        'showAt',
        'notTimed',
        'Only entries of a blog can wait for a time. Post it now, or keep it as a draft.',
      )
    return 'scheduled'
  }
  return talkOf(activity.settings).approval && !isStaff(enrolment) ? 'awaitingApproval' : 'shown'
}

/** Shows the timed entries whose time has come. @returns how many */
export async function showDue(db: Database, now: Date): Promise<number> {
  const isDue = and(
    eq(contributions.state, 'scheduled'),
    lte(contributions.showAt, now),
    isRunning(contributions.seminarId),
    mayBeTried('show', contributions.id, now),
  )
  const due = await db
    .select({ id: contributions.id, seminarId: contributions.seminarId })
    .from(contributions)
    .where(isDue)
    .orderBy(contributions.showAt, contributions.id)
  return doEach(db, 'show', due, now, async (tx, { id }) => {
    const [found] = await tx
      .select({ row: contributions, activity: activities })
      .from(contributions)
      .innerJoin(activities, eq(activities.id, contributions.activityId))
      .where(and(eq(contributions.id, id), isDue))
      .for('update', { of: contributions, skipLocked: true })
    if (!found) return 0
    const { row, activity } = found
    const waits = talkOf(activity.settings).approval
    await tx
      .update(contributions)
      .set({
        state: waits ? 'awaitingApproval' : 'shown',
        shownAt: row.showAt,
        seq: waits ? null : await nextSeq(tx, row.activityId),
      })
      .where(eq(contributions.id, id))
    await announce(tx, { activityId: row.activityId, id })
    return 1
  })
}

export const columnsOf = ({ doc, html, text, words, sources }: ReturnType<typeof renderDoc>) => ({
  doc,
  html,
  text,
  words,
  sources,
})
