import { detailOf, type ContributionDetails } from '#core/kinds/contributionDetail'
import { and, asc, eq, inArray } from 'drizzle-orm'
import { reviewOf, type ReviewSettings } from '#core/kinds/review/reviewSettings'
import { ownDueAt } from '#core/planning/schedule'
import { isStaff, nothingHere, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { allocations, contributions, enrolments, groupMembers, peerReviews } from '#server/database/schema'
import {
  type ActivityPlan,
  type AudienceGroup,
  groupsOf,
  loadPlan,
  participants,
} from '#server/services/planning'
import { type Student, practiceStudents } from '#server/services/people'

export type Allocation = typeof allocations.$inferSelect

/** Work that was handed in, or a sample staff put up. */
export interface Entry {
  readonly id: string
  readonly authorId: string
  readonly ownerIds: readonly string[] // the author, or everyone of the group it was handed in for
  readonly isSample: boolean
  readonly shownAt: Date
  readonly words: number
  readonly detail: ContributionDetails['entry']
}

/** A peer review with everyone and everything in it, as staff may know it. Nothing here is fit to be sent to a student. */
export interface LoadedPeerReview {
  readonly activity: ActivityRow
  readonly settings: ReviewSettings
  readonly plan: ActivityPlan
  readonly row: typeof peerReviews.$inferSelect | null
  readonly students: readonly Student[] // who takes part, by family name
  readonly entries: readonly Entry[]
  readonly allocations: readonly Allocation[]
  readonly groups: readonly AudienceGroup[] // of the audience, where it is for groups
}

/** The activity's settings, if it is a peer review; otherwise nothing is at this address. */
export function requireReview(activity: ActivityRow): ReviewSettings {
  if (activity.kind !== 'review') throw nothingHere()
  return reviewOf(activity.settings)
}

export async function loadPeerReview(db: Db, activity: ActivityRow): Promise<LoadedPeerReview> {
  const settings = requireReview(activity)
  const [plan, [row], everyone, practice, rows, given, inGroups] = await Promise.all([
    loadPlan(db, activity),
    db.select().from(peerReviews).where(eq(peerReviews.activityId, activity.id)),
    participants(db, activity),
    practiceStudents(db, activity.seminarId),
    db
      .select({
        id: contributions.id,
        authorId: contributions.authorId,
        shownAt: contributions.shownAt,
        words: contributions.words,
        type: contributions.type,
        detail: contributions.detail,
        role: enrolments.role,
      })
      .from(contributions)
      .innerJoin(enrolments, eq(enrolments.id, contributions.authorId))
      .where(
        and(
          eq(contributions.activityId, activity.id),
          eq(contributions.type, 'entry'),
          eq(contributions.state, 'shown'),
        ),
      )
      .orderBy(asc(contributions.shownAt), asc(contributions.id)),
    db.select().from(allocations).where(eq(allocations.activityId, activity.id)).orderBy(asc(allocations.id)),
    groupsOf(db, activity),
  ])
  // trials of the instructor's practice student take no part in what is dealt out
  const trial = new Set(practice.map(s => s.enrolmentId))
  return {
    activity,
    settings,
    plan,
    row: row ?? null,
    students: everyone.filter(plan.isMeant),
    groups: inGroups,
    allocations: given,
    entries: rows
      .filter(r => !trial.has(r.authorId))
      .map(r => ({
        id: r.id,
        authorId: r.authorId,
        ownerIds: ownersOf({ authorId: r.authorId, detail: detailOf(r, 'entry') }, inGroups),
        isSample: isStaff(r),
        shownAt: r.shownAt!,
        words: r.words,
        detail: detailOf(r, 'entry'),
      })),
  }
}

export function ownersOf(
  entry: { readonly authorId: string; readonly detail: ContributionDetails['entry'] },
  inGroups: readonly AudienceGroup[],
): readonly string[] {
  const { groupId } = entry.detail.handIn ?? {}
  const members = groupId ? inGroups.find(g => g.id === groupId)?.memberIds : undefined
  return members ? [...new Set([entry.authorId, ...members])] : [entry.authorId]
}

/** Group of each person in a plan whose groupmates are kept from reviewing each other. */
export async function groupmates(db: Db, planId: string | null): Promise<Map<string, string> | undefined> {
  if (!planId) return undefined
  const rows = await db
    .select({ groupId: groupMembers.groupId, id: groupMembers.enrolmentId })
    .from(groupMembers)
    .where(inArray(groupMembers.groupPlanId, [planId]))
  return new Map(rows.map(r => [r.id, r.groupId]))
}

/** When one person's hand-in, or their reviews, are due; an extension moves the last of them. */
export function dueOf(plan: ActivityPlan, phase: 'write' | 'review', enrolmentId: string): Date | null {
  const found = plan.phases.find(p => p.name === phase)
  return found ? ownDueAt(found.endsAt, plan.extensions.get(enrolmentId) ?? null) : null
}
export const phaseOf = (plan: ActivityPlan, phase: 'write' | 'review') =>
  plan.phases.find(p => p.name === phase) ?? null

/** Whether one can review: its phase has begun. */
export function hasReviewingBegun({ plan }: Pick<LoadedPeerReview, 'plan'>, now: Date): boolean {
  const phase = phaseOf(plan, 'review')
  return phase === null || now >= phase.startsAt
}

/** Whether reviews reach those whose work they are of: let out by staff, at the time set, or each as it comes in. */
export function isReleased(
  { settings, row }: Pick<LoadedPeerReview, 'settings' | 'row'>,
  now: Date,
): boolean {
  return (
    row?.releasedAt != null ||
    settings.release === 'atOnce' ||
    (settings.release === 'at' && settings.releaseAt !== null && now >= new Date(settings.releaseAt))
  )
}

/** Whether a review has been let out: one that came in after the release waits for the next. */
export function isLetOut(
  peerReview: Pick<LoadedPeerReview, 'settings' | 'row'>,
  allocation: Pick<Allocation, 'handedInAt'>,
  now: Date,
): boolean {
  const { settings, row } = peerReview
  if (!isReleased(peerReview, now)) return false
  if (settings.release === 'atOnce') return true
  const atTime = settings.releaseAt === null ? null : new Date(settings.releaseAt)
  const upTo = row?.releasedUpTo ?? row?.releasedAt ?? atTime
  return allocation.handedInAt !== null && upTo !== null && allocation.handedInAt <= upTo
}

/** The sample a reviewer has to practise on before this review, if there is one; what they have begun already goes on. */
export function practiceBefore(
  peerReview: Pick<LoadedPeerReview, 'allocations'>,
  allocation: Allocation,
): Allocation | null {
  if (allocation.source === 'practice' || allocation.source === 'self' || allocation.state !== 'owed')
    return null
  const isLeft = (a: Allocation) =>
    a.reviewerId === allocation.reviewerId && a.source === 'practice' && a.state !== 'in'
  return peerReview.allocations.find(isLeft) ?? null
}

/** Reviews that came in after the release, and wait to be let out. */
export const waitingReviews = (
  peerReview: Pick<LoadedPeerReview, 'settings' | 'row' | 'allocations'>,
  now: Date,
): Allocation[] =>
  isReleased(peerReview, now)
    ? peerReview.allocations.filter(
        a =>
          a.state === 'in' &&
          a.setAsideReason === null &&
          a.source !== 'self' &&
          a.source !== 'practice' &&
          !isLetOut(peerReview, a, now),
      )
    : []

/** The round's row, made if there is none, locked until the transaction ends: what is dealt is dealt one after another. */
export async function lockPeerReview(
  tx: Db,
  activity: ActivityRow,
): Promise<typeof peerReviews.$inferSelect> {
  await tx
    .insert(peerReviews)
    .values({ activityId: activity.id, seminarId: activity.seminarId, seed: 1 })
    .onConflictDoNothing()
  const [row] = await tx
    .select()
    .from(peerReviews)
    .where(eq(peerReviews.activityId, activity.id))
    .for('update')
  return row!
}
