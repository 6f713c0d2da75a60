import type { ActivityActor } from '#server/access/seminar'
import { eq } from 'drizzle-orm'
import type { ReviewSettings } from '#core/kinds/review/reviewSettings'
import type { Database, Db } from '#server/database/client'
import { allocations } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { renderDoc } from '#server/richText/renderDoc'
import { happened } from '#server/services/events'
import { withIdempotency } from '#server/services/idempotency'
import type { RichNode } from '#core/contributing/richText'
import type { Allocation } from './peerReview'

type ReceiverAt = ActivityActor & { readonly allocation: Allocation; readonly settings: ReviewSettings }

/** How helpful a review was to the one who received it; staff see it, its reviewer only as a mean. */
export async function rateHelpful(
  db: Db,
  { allocation, settings }: ReceiverAt,
  helpful: number | null,
): Promise<{ done: boolean }> {
  if (!settings.helpful) throw new Problem(409, 'notAsked', 'It is not asked here how helpful reviews were.')
  await db.update(allocations).set({ helpful }).where(eq(allocations.id, allocation.id))
  return { done: true }
}

/** Answers a review, without names on either side; its reviewer is told, once. */
export function answerReview(
  db: Database,
  actor: ReceiverAt,
  write: { readonly key: string; readonly doc: RichNode },
  now: Date,
): Promise<{ done: boolean }> {
  const { doc, html, words } = renderDoc(write.doc)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    if (words > 2000)
      throw refusedField('doc', 'tooLong', 'An answer has up to 2,000 words. What you typed is kept here.')
    await tx
      .update(allocations)
      .set(words === 0 ? { answerDoc: null, answerHtml: null } : { answerDoc: doc, answerHtml: html })
      .where(eq(allocations.id, actor.allocation.id))
    const { reviewerId, id, answerHtml } = actor.allocation
    if (words > 0 && answerHtml === null)
      await happened(
        tx,
        { kind: 'reviewAnswered', activity: actor.activity, enrolmentId: reviewerId, reviewId: id },
        now,
      )
    return { done: true }
  })
}
