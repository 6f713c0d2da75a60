import { and, eq, inArray } from 'drizzle-orm'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { allocations, peerReviews } from '#server/database/schema'
import { slicesOf } from '#server/database/slices'
import { giveAliases } from '#server/services/contributing'
import { isBegun, isReal } from './allocationState'
import { hasReviewingBegun, loadPeerReview, phaseOf, type LoadedPeerReview } from './peerReview'

type NewAllocation = typeof allocations.$inferInsert

/**
 * Makes what a review needs before anybody looks at it: the reviews that need no dealing, and what readers and authors go
 * by. Everyone in a group reviews the others and, if so set, themselves; everyone practises on the samples, and reviews
 * their own work where that is asked for.
 */
export async function prepareReview(tx: Db, activity: ActivityRow, now: Date): Promise<void> {
  const found = await loadPeerReview(tx, activity)
  const peerReview = (await freeReaders(tx, found, now)) ? await loadPeerReview(tx, activity) : found
  const wanted = standingOf(peerReview, now)
  const there = new Set(peerReview.allocations.map(key))
  const missing = wanted.filter(w => !there.has(key(w)))
  const row = { seminarId: activity.seminarId, activityId: activity.id, madeAt: now }
  for (const some of slicesOf(missing))
    await tx
      .insert(allocations)
      .values(some.map(m => ({ ...m, ...row })))
      .onConflictDoNothing()
  await giveAliases(tx, activity, namedIn(peerReview, [...peerReview.allocations, ...missing]))
  if (peerReview.settings.subject !== 'teammates') return
  // whoever left a group reviews its members no more, unless they had begun
  const stays = new Set(wanted.map(key))
  const gone = peerReview.allocations
    .filter(a => a.entryId === null && !stays.has(key(a)) && a.openedAt === null && a.reviewId === null)
    .map(a => a.id)
  if (gone.length > 0)
    await tx.delete(allocations).where(and(inArray(allocations.id, gone), eq(allocations.state, 'owed')))
}

/**
 * Takes the dealing back where hand-in goes on again after it, so that what is still handed in gets readers, too, once it
 * ends. What somebody has opened, and what staff have given by hand, stands in the way: then nothing is taken back.
 *
 * @returns whether anything was
 */
async function freeReaders(
  tx: Db,
  { plan, row, settings, allocations: all }: LoadedPeerReview,
  now: Date,
): Promise<boolean> {
  const write = phaseOf(plan, 'write')
  if (settings.subject !== 'work' || !row?.dealtAt || !write || now > write.endsAt) return false
  if (all.filter(isReal).some(a => isBegun(a) || a.source !== 'dealt')) return false
  await tx
    .delete(allocations)
    .where(and(eq(allocations.activityId, row.activityId), eq(allocations.source, 'dealt')))
  await tx
    .update(peerReviews)
    .set({ dealtAt: null, version: row.version + 1 })
    .where(eq(peerReviews.activityId, row.activityId))
  return true
}

/** Who goes by a name where: authors and readers at a work, readers at the teammate they review. */
const namedIn = (
  { entries }: LoadedPeerReview,
  pairs: ReadonlyArray<Pick<NewAllocation, 'reviewerId' | 'subjectId' | 'entryId'>>,
) => [
  ...entries.map(e => ({ threadId: e.id, authorId: e.authorId })),
  ...pairs.map(a => ({ threadId: a.entryId ?? a.subjectId, authorId: a.reviewerId })),
]

const key = (a: Pick<NewAllocation, 'reviewerId' | 'subjectId' | 'entryId'>) =>
  `${a.reviewerId}:${a.entryId ?? a.subjectId}`

function standingOf(
  peerReview: LoadedPeerReview,
  now: Date,
): Array<Pick<NewAllocation, 'reviewerId' | 'subjectId' | 'entryId' | 'source'>> {
  const takesPart = new Set(peerReview.students.map(s => s.enrolmentId))
  if (peerReview.settings.subject === 'teammates') {
    return peerReview.groups.flatMap(g =>
      g.memberIds
        .filter(id => takesPart.has(id))
        .flatMap(reviewerId =>
          g.memberIds
            .filter(id => takesPart.has(id) && (peerReview.settings.self || id !== reviewerId))
            .map(subjectId => ({
              reviewerId,
              subjectId,
              entryId: null,
              source: subjectId === reviewerId ? ('self' as const) : ('dealt' as const),
            })),
        ),
    )
  }
  const samples = peerReview.entries
    .filter(e => e.isSample)
    .flatMap(e =>
      [...takesPart].map(reviewerId => ({
        reviewerId,
        subjectId: e.authorId,
        entryId: e.id,
        source: 'practice' as const,
      })),
    )
  const selves =
    peerReview.settings.self && peerReview.row?.dealtAt && hasReviewingBegun(peerReview, now)
      ? peerReview.entries
          .filter(e => !e.isSample)
          .flatMap(e =>
            e.ownerIds
              .filter(id => takesPart.has(id))
              .map(reviewerId => ({
                reviewerId,
                subjectId: e.authorId,
                entryId: e.id,
                source: 'self' as const,
              })),
          )
      : []
  return [...samples, ...selves]
}
