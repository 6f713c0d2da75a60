import { eq } from 'drizzle-orm'
import type { H3Event } from 'h3'
import type { Db } from '#server/database/client'
import { allocations } from '#server/database/schema'
import { loadPeerReview } from '#server/kinds/review/peerReview'
import { reachOfReview } from '#server/kinds/review/shapeReview'
import { nothingHere, requireContributor, requireMarker } from '#server/access/seminar'
import { requirePerson } from '#server/access/session'
import { Problem } from '#server/http/problem'

/** A review, to whoever gives it; to everybody else it is not there. @param missing what is said where it is not there */
export async function requireReviewer(
  event: H3Event,
  db: Db,
  reviewId: string,
  now: Date,
  missing: () => Problem = nothingHere,
) {
  await requirePerson(event)
  const [allocation] = await db.select().from(allocations).where(eq(allocations.id, reviewId))
  if (!allocation) throw missing()
  const actor = await requireContributor(event, db, allocation.activityId, now)
  if (allocation.reviewerId !== actor.enrolment.id) throw nothingHere()
  return { ...actor, allocation }
}

/** Of a review that somebody had open: it was given to another reader meanwhile. */
export const reassigned = () =>
  new Problem(
    404,
    'gone',
    'This review is not yours to give any more: the instructor has reassigned it. What you wrote is kept in this window; copy it if you need it.',
  )

/** A review that has reached the one whose work it is of, alone or with their group. */
export async function requireReceiver(event: H3Event, db: Db, receivedId: string, now: Date) {
  await requirePerson(event)
  const [allocation] = await db.select().from(allocations).where(eq(allocations.receivedId, receivedId))
  if (!allocation) throw nothingHere()
  const actor = await requireContributor(event, db, allocation.activityId, now)
  const peerReview = await loadPeerReview(db, actor.activity)
  const entry = peerReview.entries.find(e => e.id === allocation.entryId) ?? null
  if (reachOfReview(peerReview, allocation, entry, actor.enrolment, now) !== 'received') throw nothingHere()
  return { ...actor, allocation, settings: peerReview.settings }
}

/** One allocation of an activity, to those who moderate it. */
export async function requireModerator(
  event: H3Event,
  db: Db,
  activityId: string,
  allocationId: string,
  now: Date,
) {
  const actor = await requireMarker(event, db, activityId, now)
  const [allocation] = await db.select().from(allocations).where(eq(allocations.id, allocationId))
  if (!allocation || allocation.activityId !== activityId) throw nothingHere()
  return { ...actor, allocation }
}
