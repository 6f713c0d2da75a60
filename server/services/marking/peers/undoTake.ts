import { inArray } from 'drizzle-orm'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { criterionMarks, marks } from '#server/database/schema'
import { requireReview } from '#server/kinds'
import { noteActs } from '#server/services/auditTrail'
import { withIdempotency } from '#server/services/idempotency'
import { lockMarks, type StoredMark } from '#server/services/marking/lockMarks'
import { storePoints } from '#server/services/marking/storePoints'
import type { TakeAnswer } from '#shared/marking/peers'
import { storeMarks } from './takenMarks'

/**
 * Puts marks back as they were before points were taken: steps, letter, state and who had saved them; a mark that was not there
 * is gone again. One that was changed, returned or reopened since stays, and is named with the reason.
 */
export function undoTake(
  db: Database,
  actor: ActivityActor,
  write: { readonly key: string; readonly enrolmentIds: readonly string[] },
  now: Date,
): Promise<TakeAnswer> {
  requireReview(actor.activity)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const wanted = [...new Set(write.enrolmentIds)]
    const found = await lockMarks(tx, actor.activity.id, wanted)
    if (found.size === 0) throw nothingHere()
    const undone = wanted.flatMap(id => {
      const row = found.get(id)
      return row && mayUndo(row) ? [row] : []
    })
    await noteActs(
      tx,
      actor,
      now,
      ...undone.map(row => ({ act: 'takeUndone' as const, subjectId: row.id, detail: {} })),
    )
    await restore(tx, actor, undone, now)
    const ids = new Set(undone.map(row => row.enrolmentId))
    return {
      taken: [...ids],
      left: wanted
        .filter(id => !ids.has(id))
        .map(enrolmentId => ({
          enrolmentId,
          why: 'This mark has been changed since, so it stays. Reopen it to change it.',
        })),
    }
  })
}

/** Whether a mark stands as it was taken. */
const mayUndo = ({ beforeTake, state, version }: StoredMark): boolean =>
  beforeTake !== null && state === 'held' && version === beforeTake.version

async function restore(tx: Db, actor: ActivityActor, rows: readonly StoredMark[], now: Date): Promise<void> {
  // own points written beside a consensus were saved after it, so a mark that was not there has none
  const absent = rows.filter(r => r.beforeTake!.mark === null).map(r => r.id)
  if (absent.length > 0) {
    await tx.delete(criterionMarks).where(inArray(criterionMarks.markId, absent))
    await tx.delete(marks).where(inArray(marks.id, absent))
  }
  const restored = rows.flatMap(known => {
    const before = known.beforeTake!.mark
    return before === null ? [] : [{ ...before, enrolmentId: known.enrolmentId, known, beforeTake: null }]
  })
  await storeMarks(tx, actor, restored)
  await storePoints(
    tx,
    actor,
    restored.map(r => r.enrolmentId),
    now,
  )
}
