import { and, eq, inArray, isNull, lte, or, sql } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { dealReviews, type TooFew } from '#core/kinds/review/dealReviews'
import type { Work } from '#core/kinds/review/pairing'
import { repairDeal, type Wanted } from '#core/kinds/review/repairDeal'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, allocations, keptApart, phases, peerReviews, willing } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { withIdempotency } from '#server/services/idempotency'
import { isRunning } from '#server/services/people'
import { doEach, mayBeTried } from '#server/services/dueWork'
import type { PairsWrite, RepairPlan, RepairView } from '#shared/marking/peers'
import { isBegun, isReal, isWritten } from './allocationState'
import {
  groupmates,
  loadPeerReview,
  lockPeerReview,
  phaseOf,
  requireReview,
  type Allocation,
  type LoadedPeerReview,
} from './peerReview'
import { prepareReview } from './prepareReview'

/** Deals the work out by the rules as they are set. What a reviewer has opened or written stays with them. */
export function dealOut(
  db: Database,
  actor: ActivityActor,
  write: { readonly key: string; readonly seed: number },
  now: Date,
): Promise<{ version: number }> {
  requireReview(actor.activity)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const version = await dealNow(tx, actor.activity, write.seed, now)
    await noteActs(tx, actor, now, {
      act: 'reviewsAllocated',
      subjectId: actor.activity.id,
      detail: { seed: write.seed },
    })
    return { version }
  })
}

/** Takes an assigning back: nobody has a work to read, and it can be assigned anew. What somebody has opened stands in the way. */
export function undeal(db: Database, actor: ActivityActor, now: Date): Promise<{ version: number }> {
  requireReview(actor.activity)
  return db.transaction(async tx => {
    const row = await lockPeerReview(tx, actor.activity)
    const peerReview = await loadPeerReview(tx, actor.activity)
    if (peerReview.allocations.some(a => isReal(a) && isBegun(a)))
      throw new Problem(
        409,
        'begun',
        'Reviews have been opened already, and these stay with their readers. Nothing was undone.',
      )
    await removeDealt(tx, actor.activity.id)
    await tx
      .update(peerReviews)
      .set({ dealtAt: null, version: row.version + 1 })
      .where(eq(peerReviews.activityId, actor.activity.id))
    await noteActs(tx, actor, now, {
      act: 'reviewsAllocated',
      subjectId: actor.activity.id,
      detail: { undone: true },
    })
    return { version: row.version + 1 }
  })
}

const removeDealt = (tx: Db, activityId: string) =>
  tx
    .delete(allocations)
    .where(
      and(eq(allocations.activityId, activityId), inArray(allocations.source, ['dealt', 'byHand', 'extra'])),
    )

async function dealNow(
  tx: Db,
  activity: ActivityActor['activity'],
  seed: number,
  now: Date,
): Promise<number> {
  const row = await lockPeerReview(tx, activity)
  const peerReview = await loadPeerReview(tx, activity)
  const { settings, plan } = peerReview
  if (settings.subject === 'teammates')
    throw new Problem(409, 'teammates', 'Teammates review each other; there are no reviewers to assign.')
  const write = phaseOf(plan, 'write')
  if (write && now <= write.endsAt)
    throw new Problem(
      409,
      'handInOpen',
      'Hand-in has not ended. Reviewers are assigned once it has, so that everyone’s work gets some.',
    )
  const real = peerReview.allocations.filter(isReal)
  if (real.some(isBegun))
    throw new Problem(
      409,
      'begun',
      'Reviews have been opened already, and these stay with their readers. Reassign instead: that touches only what nobody has opened.',
    )
  const works = worksOf(peerReview)
  if (works.length < 2)
    throw new Problem(
      409,
      'tooFewWorks',
      works.length === 0
        ? 'Nothing has been handed in yet, so there is nothing to review.'
        : 'Only one piece of work is in; there is nobody to review it but its author.',
    )
  const dealt = dealReviews(reviewersOf(peerReview), works, {
    each: settings.each,
    seed,
    ...(await apartOf(tx, peerReview)),
  })
  if (dealt.kind === 'impossible')
    throw refusedField('each', 'impossible', sentenceOf(dealt.because, dealt.largest, peerReview))
  await removeDealt(tx, activity.id)
  await tx
    .insert(allocations)
    .values(dealt.pairs.map(p => newAllocation(peerReview, p.reviewerId, p.workId, 'dealt', now)))
  await tx
    .update(peerReviews)
    .set({ seed, dealtAt: now, version: row.version + 1 })
    .where(eq(peerReviews.activityId, activity.id))
  return row.version + 1
}

/** Deals out by itself what nobody has dealt when its reviewing begins. @returns how many */
export async function dealDue(db: Database, now: Date): Promise<number> {
  const due = await db
    .select({ id: activities.id, seminarId: activities.seminarId, activity: activities })
    .from(activities)
    .innerJoin(phases, and(eq(phases.activityId, activities.id), eq(phases.name, 'review')))
    .leftJoin(peerReviews, eq(peerReviews.activityId, activities.id))
    .where(
      and(
        eq(activities.kind, 'review'),
        eq(activities.state, 'published'),
        // teammates review each other: there is nothing to deal out
        sql`${activities.settings} -> 'review' ->> 'subject' is distinct from 'teammates'`,
        lte(phases.startsAt, now),
        isRunning(activities.seminarId),
        mayBeTried('deal', activities.id, now),
        or(isNull(peerReviews.activityId), isNull(peerReviews.dealtAt), lacksOwnReviews),
      ),
    )
  // what cannot be dealt waits for the instructor, whose desk says why
  return doEach(db, 'deal', due, now, async (tx, { activity }) => {
    const { dealtAt } = await lockPeerReview(tx, activity)
    if (dealtAt) await prepareReview(tx, activity, now)
    else await dealNow(tx, activity, activity.position + 1, now)
    return 1
  })
}

/** Dealt before its reviewing began: everyone's own work is theirs to review only now. */
const lacksOwnReviews = sql`(${activities.settings} -> 'review' ->> 'self')::boolean
  and not exists (select 1 from allocations own where own.activity_id = ${activities.id} and own.source = 'self')
  and exists (select 1 from allocations dealt where dealt.activity_id = ${activities.id} and dealt.source = 'dealt')`

/** Allocations staff have moved by hand: what is begun stays, nobody reviews their own. */
export function setPairs(
  db: Database,
  actor: ActivityActor,
  write: PairsWrite,
  now: Date,
): Promise<{ version: number }> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const row = await lockPeerReview(tx, actor.activity)
    requireVersion(row, write.baseVersion)
    const peerReview = await loadPeerReview(tx, actor.activity)
    const find = (p: { readonly reviewerId: string; readonly entryId: string }) =>
      peerReview.allocations.find(a => a.reviewerId === p.reviewerId && a.entryId === p.entryId)
    const going = write.remove.flatMap(p => find(p) ?? [])
    if (going.some(a => isWritten(a)))
      throw new Problem(
        409,
        'begun',
        'One of these reviews has been begun, so it stays with its reader. Nothing was moved.',
      )
    if (going.length > 0)
      await tx.delete(allocations).where(
        inArray(
          allocations.id,
          going.map(a => a.id),
        ),
      )
    const reviewers = new Set(reviewersOf(peerReview))
    const added = write.add
      .filter(p => !find(p) || going.includes(find(p)!))
      .map(p => {
        const entry = peerReview.entries.find(e => e.id === p.entryId && !e.isSample)
        if (!entry || !reviewers.has(p.reviewerId)) throw nothingHere()
        if (entry.ownerIds.includes(p.reviewerId))
          throw refusedField(
            'add',
            'own',
            'Nobody is dealt their own work. Reviewing oneself is a setting of the plan.',
          )
        return newAllocation(peerReview, p.reviewerId, p.entryId, 'byHand', now)
      })
    if (added.length > 0) await tx.insert(allocations).values(added)
    await tx
      .update(peerReviews)
      .set({ version: row.version + 1, dealtAt: row.dealtAt ?? now })
      .where(eq(peerReviews.activityId, actor.activity.id))
    await noteActs(tx, actor, now, {
      act: 'allocationsChanged',
      subjectId: actor.activity.id,
      detail: { add: write.add, remove: write.remove },
    })
    return { version: row.version + 1 }
  })
}

/** What would be moved so that every work has its readers again: shown before it is done. */
export async function planRepair(db: Db, actor: ActivityActor, plan: RepairPlan): Promise<RepairView> {
  const peerReview = await loadPeerReview(db, actor.activity)
  const real = peerReview.allocations.filter(isReal)
  const [offered, apart] = await Promise.all([
    db.select().from(willing).where(eq(willing.activityId, actor.activity.id)),
    apartOf(db, peerReview),
  ])
  const { each } = peerReview.settings
  const idle = new Set(plan.idle)
  const mostOf = (id: string): number => {
    // somebody named idle gives what they have begun, and no more
    if (idle.has(id)) return real.filter(a => a.reviewerId === id && isWritten(a)).length
    const findMore = () => {
      if (plan.extra === 'everyone') return 1
      if (plan.extra === 'willing') return offered.find(w => w.enrolmentId === id)?.more ?? 0
      return 0
    }
    const more = findMore()
    return Math.max(each + more, real.filter(a => a.reviewerId === id && isBegun(a)).length)
  }
  const works = worksOf(peerReview)
  const reviewers = reviewersOf(peerReview)
  // of somebody who gives no more, what was looked at and not begun goes to somebody else
  const stays = (a: Allocation) => (idle.has(a.reviewerId) ? isWritten(a) : isBegun(a))
  const repair = repairDeal(
    real.filter(a => a.entryId).map(a => ({ reviewerId: a.reviewerId, workId: a.entryId!, begun: stays(a) })),
    reviewers.map(id => ({ id, most: mostOf(id) })),
    wantedOf(works, reviewers.length, each),
    { ...apart, seed: peerReview.row?.seed ?? 1 },
  )
  const pair = (p: { readonly reviewerId: string; readonly workId: string }) => ({
    reviewerId: p.reviewerId,
    entryId: p.workId,
  })
  return {
    add: repair.add.map(pair),
    remove: repair.remove.map(pair),
    short: repair.short.map(s => ({ entryId: s.workId, missing: s.missing })),
    untouched: real.length - repair.remove.length,
    baseVersion: peerReview.row?.version ?? 1,
  }
}

/** Who must not review whom, besides groupmates. */
export async function setApart(
  db: Database,
  actor: ActivityActor,
  pairs: ReadonlyArray<readonly [string, string]>,
): Promise<{ done: boolean }> {
  const peerReview = await loadPeerReview(db, actor.activity)
  const people = new Set(peerReview.students.map(s => s.enrolmentId))
  if (pairs.some(([a, b]) => a === b || !people.has(a) || !people.has(b))) throw nothingHere()
  await db.transaction(async tx => {
    await tx.delete(keptApart).where(eq(keptApart.activityId, actor.activity.id))
    const unique = new Map(
      pairs.map(([a, b]) => [
        [a, b].sort().join(),
        {
          activityId: actor.activity.id,
          seminarId: actor.seminar.id,
          oneId: a < b ? a : b,
          otherId: a < b ? b : a,
        },
      ]),
    )
    if (unique.size > 0) await tx.insert(keptApart).values([...unique.values()])
  })
  return { done: true }
}

/** What each work is to have: of one person's as many as everyone gives; of a group's what all give comes to, and gladly more. */
function wantedOf(works: ReadonlyArray<Work>, reviewers: number, each: number): Wanted[] {
  if (works.every(w => w.ownerIds.length === 1)) {
    const need = Math.min(each, Math.max(0, works.length - 1))
    return works.map(w => ({ ...w, need }))
  }
  const share = Math.floor((reviewers * each) / works.length)
  return works.map(w => ({ ...w, need: Math.min(share, reviewers - w.ownerIds.length), most: Infinity }))
}

/** Everyone whose own work is in gives reviews; whoever handed nothing in reads nobody's. */
export function reviewersOf(peerReview: LoadedPeerReview): string[] {
  const owners = new Set(peerReview.entries.filter(e => !e.isSample).flatMap(e => e.ownerIds))
  return peerReview.students.filter(s => owners.has(s.enrolmentId)).map(s => s.enrolmentId)
}
export function worksOf(peerReview: LoadedPeerReview) {
  const people = new Set(peerReview.students.map(s => s.enrolmentId))
  return peerReview.entries
    .filter(e => !e.isSample && e.ownerIds.some(id => people.has(id)))
    .map(e => ({ id: e.id, ownerIds: e.ownerIds }))
}

async function apartOf(db: Db, peerReview: LoadedPeerReview) {
  const [groupOf, rows] = await Promise.all([
    groupmates(db, peerReview.settings.apartIn),
    db.select().from(keptApart).where(eq(keptApart.activityId, peerReview.activity.id)),
  ])
  return { ...(groupOf && { groupOf }), barred: rows.map(r => [r.oneId, r.otherId] as const) }
}

function newAllocation(
  peerReview: LoadedPeerReview,
  reviewerId: string,
  entryId: string,
  source: Allocation['source'],
  now: Date,
) {
  return {
    seminarId: peerReview.activity.seminarId,
    activityId: peerReview.activity.id,
    reviewerId,
    entryId,
    subjectId: peerReview.entries.find(e => e.id === entryId)!.authorId,
    source,
    madeAt: now,
  }
}

function requireVersion(row: { readonly version: number }, base: number): void {
  if (row.version !== base)
    throw new Problem(
      409,
      'changedMeanwhile',
      'Somebody else has moved reviews meanwhile. Nothing of yours was done; look at the table as it is now.',
      { theirs: { version: row.version } },
    )
}

function sentenceOf(because: TooFew, largest: number, peerReview: LoadedPeerReview): string {
  const name = (id: string) => peerReview.students.find(s => s.enrolmentId === id)?.name ?? 'somebody'
  const { each } = peerReview.settings
  const most =
    largest === 0
      ? 'With these rules nothing can be dealt at all'
      : `${largest} each is the most these rules allow`
  if (because.code === 'reviewer')
    return `${each} reviews each cannot be dealt: ${name(because.reviewerId)} may review only ${because.permitted}. ${most}.`
  if (because.code === 'work') {
    const author = name(peerReview.entries.find(e => e.id === because.workId)?.authorId ?? '')
    return `${each} reviews each cannot be dealt: the work of ${author} may be reviewed by ${because.permitted} only. ${most}.`
  }
  const some = because.reviewerIds.slice(0, 4).map(name).join(', ')
  const reviewers = because.reviewerIds.length > 4 ? `${some} and others` : some
  return `${each} reviews each cannot be dealt: ${reviewers} may all review the same ${because.works} only. ${most}.`
}
