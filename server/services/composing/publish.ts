import { and, eq, lte } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { isWorkingPhase } from '#core/planning/schedule'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { activities, contributions, enrolments, extensions, phases, seminars } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { withIdempotency } from '#server/services/idempotency'
import { doEach, mayBeTried } from '#server/services/dueWork'
import { isRunning } from '#server/services/people'
import type { ActivityBody } from '#shared/planning/composer'
import { requireCurrent } from './requireCurrent'
import { requireSound } from './requireSound'
import { loadBody } from './composer'
import { happened } from '#server/services/events'

/** Publishes at once, or at a time to come: then it opens by itself. What opens now begins now, with the due times it has. */
export function publishActivity(
  db: Database,
  actor: ActivityActor,
  write: {
    readonly key: string
    readonly baseVersion: number
    readonly opens: string
    readonly tell: boolean
  },
  now: Date,
) {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const row = await requireCurrent(tx, actor, write.baseVersion, now)
    if (row.isTemplate)
      throw new Problem(422, 'template', 'This is a template. Plan an activity from it, then publish that.')
    const opensAt = write.opens === 'now' ? now : new Date(write.opens)
    const body = await loadBody(tx, row)
    const first = body.phases.find(p => isWorkingPhase(p.name))
    if (first && new Date(first.endsAt) <= opensAt)
      throw refusedField(
        'opens',
        'overAlready',
        'Its first due time would be over when it opens. Move the due time first.',
      )
    const moved = body.phases.map(p => (p === first ? { ...p, startsAt: opensAt.toISOString() } : p))
    requireSound({ ...body, opensAt: opensAt.toISOString(), phases: moved } as ActivityBody)
    const later = opensAt > now
    if (first)
      await tx
        .update(phases)
        .set({ startsAt: opensAt })
        .where(and(eq(phases.activityId, row.id), eq(phases.name, first.name)))
    const [after] = await tx
      .update(activities)
      .set({
        state: later ? 'scheduled' : 'published',
        opensAt,
        publishedAt: later ? null : now,
        tellOnPublish: write.tell,
        version: row.version + 1,
      })
      .where(eq(activities.id, row.id))
      .returning()
    await noteActs(tx, actor, now, {
      act: later ? 'activityScheduled' : 'activityPublished',
      subjectId: row.id,
      detail: { told: write.tell },
    })
    if (!later && write.tell)
      await happened(tx, { kind: 'published', activity: after!, seminar: actor.seminar }, now)
    return { version: after!.version, state: after!.state }
  })
}

/** Takes an activity back to draft while nobody has written in it. */
export function unpublishActivity(
  db: Database,
  actor: ActivityActor,
  write: { readonly key: string; readonly baseVersion: number },
  now: Date,
) {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const row = await requireCurrent(tx, actor, write.baseVersion, now)
    const written = await tx.$count(contributions, eq(contributions.activityId, row.id))
    if (written > 0)
      throw new Problem(
        409,
        'written',
        `${written === 1 ? 'Somebody has' : 'People have'} written in it already, so it stays published. Its dates and everything else can still be changed.`,
      )
    const [after] = await tx
      .update(activities)
      .set({ state: 'draft', publishedAt: null, version: row.version + 1 })
      .where(eq(activities.id, row.id))
      .returning()
    await noteActs(tx, actor, now, {
      act: 'activityUnpublished',
      subjectId: row.id,
    })
    return { version: after!.version, state: after!.state }
  })
}

/** Opens what was scheduled and is due; of several processes each is opened and told by one. */
export async function publishDue(db: Database, now: Date): Promise<number> {
  const isDue = and(
    eq(activities.state, 'scheduled'),
    lte(activities.opensAt, now),
    isRunning(activities.seminarId),
    mayBeTried('publish', activities.id, now),
  )
  const due = await db
    .select({ id: activities.id, seminarId: activities.seminarId })
    .from(activities)
    .where(isDue)
    .orderBy(activities.opensAt)
  return doEach(db, 'publish', due, now, async (tx, { id }) => {
    const [found] = await tx
      .select({ activity: activities, seminar: seminars })
      .from(activities)
      .innerJoin(seminars, eq(seminars.id, activities.seminarId))
      .where(and(eq(activities.id, id), isDue))
      .for('update', { of: activities, skipLocked: true })
    if (!found) return 0
    const [after] = await tx
      .update(activities)
      .set({ state: 'published', publishedAt: now, version: found.activity.version + 1 })
      .where(eq(activities.id, id))
      .returning()
    if (found.activity.tellOnPublish)
      await happened(tx, { kind: 'published', activity: after!, seminar: found.seminar }, now)
    return 1
  })
}

export async function setLocked(
  db: Database,
  actor: ActivityActor,
  locked: boolean,
  now: Date,
): Promise<void> {
  await db.transaction(async tx => {
    await tx
      .update(activities)
      .set({ lockedAt: locked ? now : null })
      .where(eq(activities.id, actor.activity.id))
    await noteActs(tx, actor, now, {
      act: locked ? 'activityLocked' : 'activityUnlocked',
      subjectId: actor.activity.id,
    })
  })
}

/** More time for one person; it never shortens anyone's. Null takes it away. */
export async function setExtension(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  extension: { readonly dueAt: string; readonly reason: string } | null,
  now: Date,
): Promise<void> {
  await db.transaction(async tx => {
    const [student] = await tx
      .select()
      .from(enrolments)
      .where(
        and(
          eq(enrolments.id, enrolmentId),
          eq(enrolments.seminarId, actor.seminar.id),
          eq(enrolments.role, 'student'),
        ),
      )
    if (!student) throw nothingHere()
    const ids = { seminarId: actor.seminar.id, activityId: actor.activity.id, enrolmentId }
    if (extension) {
      const values = { dueAt: new Date(extension.dueAt), reason: extension.reason }
      await tx
        .insert(extensions)
        .values({ ...ids, ...values })
        .onConflictDoUpdate({ target: [extensions.activityId, extensions.enrolmentId], set: values })
    } else
      await tx
        .delete(extensions)
        .where(and(eq(extensions.activityId, actor.activity.id), eq(extensions.enrolmentId, enrolmentId)))
    await noteActs(tx, actor, now, {
      act: extension ? 'extensionGiven' : 'extensionTakenAway',
      subjectId: enrolmentId,
      detail: { activityId: actor.activity.id, ...extension },
    })
  })
}
