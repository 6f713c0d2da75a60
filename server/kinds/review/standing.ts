import { and, eq, inArray } from 'drizzle-orm'
import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { allocations } from '#server/database/schema'
import { hasReviewingBegun, loadPeerReview, type LoadedPeerReview } from './peerReview'

type NewAllocation = typeof allocations.$inferInsert

/**
 * What needs no dealing: everyone in a group reviews the others and, if so set, themselves; everyone practises on the
 * samples, and reviews their own work where that is asked for. Made when somebody looks; made once, whoever looks.
 */
export async function dealStanding(db: Db, activity: ActivityRow, now: Date): Promise<void> {
  const peerReview = await loadPeerReview(db, activity)
  const wanted = standingOf(peerReview, now)
  const there = new Set(peerReview.allocations.map(key))
  const missing = wanted.filter(w => !there.has(key(w)))
  if (missing.length > 0)
    await db
      .insert(allocations)
      .values(
        missing.map(m => ({ ...m, seminarId: activity.seminarId, activityId: activity.id, madeAt: now })),
      )
      .onConflictDoNothing()
  if (peerReview.settings.subject !== 'teammates') return
  // whoever left a group reviews its members no more, unless they had begun
  const stays = new Set(wanted.map(key))
  const gone = peerReview.allocations
    .filter(a => a.entryId === null && !stays.has(key(a)) && a.openedAt === null && a.reviewId === null)
    .map(a => a.id)
  if (gone.length > 0)
    await db.delete(allocations).where(and(inArray(allocations.id, gone), eq(allocations.state, 'owed')))
}

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
