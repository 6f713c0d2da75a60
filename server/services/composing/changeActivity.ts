import { and, eq, inArray } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { KINDS } from '#core/kinds'
import type { ActivityRow, ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, contributions, marks } from '#server/database/schema'
import { storePoints } from '#server/services/marking'
import { withIdempotency } from '#server/services/idempotency'
import type { ActivityBody, ActivityPatch } from '#shared/planning/composer'
import { composerView, loadBody } from '#server/services/composing/composer'
import { happened } from '#server/services/events'
import { requireSound } from './requireSound'
import { requireOwnParts } from './requireOwnParts'
import { withOneCount } from '#core/kinds/review/reviewCount'
import { reviewOf } from '#core/kinds/review/reviewSettings'
import { hooksOf } from '#server/services/contributing'
import { requireKindKept } from './requireWrittenKept'
import { columnsOf } from './activityColumns'
import { writeParts } from './writeParts'
import { requireCurrent } from './requireCurrent'

/** The body with a change on it; what the change does not name stays. */
export async function changedBody(
  db: Db,
  activity: ActivityRow,
  change: Partial<ActivityBody>,
): Promise<ActivityBody> {
  const named = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined))
  const before = (await loadBody(db, activity)) as ActivityBody
  const body = { ...before, ...named }
  return { ...body, ...withOneCount(before, body) }
}

/**
 * Changes what is set about an activity: only what the change names. Contributions, drafts and marks stay, whatever is
 * changed: with another kind they become that kind's entries and answers; with other points, marks not yet returned are calculated anew.
 */
export function changeActivity(db: Database, actor: ActivityActor, write: ActivityPatch, now: Date) {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const before = await requireCurrent(tx, actor, write.baseVersion, now)
    const old = await loadBody(tx, before)
    const body = await changedBody(tx, before, write.change)
    requireSound(body)
    await requireKindKept(tx, before, body.kind)
    await hooksOf(before.kind).requireKept?.(tx, before, body)
    await requireOwnParts(tx, actor, body, old.jointSeminarIds)
    const [after] = await tx
      .update(activities)
      .set({ ...columnsOf(body, before), version: before.version + 1 })
      .where(eq(activities.id, before.id))
      .returning()
    await writeParts(tx, after!, body)
    if (before.kind !== body.kind) await renameContributions(tx, before, body.kind)
    if (
      before.points !== body.points ||
      JSON.stringify(before.lateRule) !== JSON.stringify(body.lateRule) ||
      JSON.stringify(before.combine) !== JSON.stringify(after!.combine) ||
      reviewOf(before.settings).reviewingPercent !== reviewOf(after!.settings).reviewingPercent
    )
      await recalculate(tx, { ...actor, activity: after! }, now)
    const fields = Object.keys(write.change)
    await noteActs(tx, actor, now, {
      act: 'activityChanged',
      subjectId: before.id,
      detail: { fields, title: body.title },
    })
    if (write.tell && after!.state === 'published')
      await happened(
        tx,
        { kind: 'planChanged', activity: after!, seminar: actor.seminar, before: old, after: body },
        now,
      )
    return composerView(tx, { ...actor, activity: after! }, now)
  })
}

/** With another kind, what was written becomes that kind's entries and answers; words, authors and times stay. */
async function renameContributions(tx: Db, before: ActivityRow, kind: ActivityRow['kind']): Promise<void> {
  const [from, to] = [KINDS[before.kind], KINDS[kind]]
  if (from.entryType !== to.entryType)
    await tx
      .update(contributions)
      .set({ type: to.entryType })
      .where(and(eq(contributions.activityId, before.id), eq(contributions.type, from.entryType)))
  if (from.answerType && from.answerType !== to.answerType)
    await tx
      .update(contributions)
      .set({ type: to.answerType ?? 'comment' })
      .where(and(eq(contributions.activityId, before.id), eq(contributions.type, from.answerType)))
}

/** Points of marks that were not returned yet, by the activity as it is now. Returned letters are what they were. */
async function recalculate(tx: Db, actor: ActivityActor, now: Date): Promise<void> {
  const rows = await tx
    .select({ enrolmentId: marks.enrolmentId })
    .from(marks)
    .where(and(eq(marks.activityId, actor.activity.id), inArray(marks.state, ['open', 'held'])))
  await storePoints(
    tx,
    actor,
    rows.map(r => r.enrolmentId),
    now,
  )
}
