import { and, asc, eq, inArray, isNotNull, lte, or, sql } from 'drizzle-orm'
import { union } from 'drizzle-orm/pg-core'
import { judgementHolds } from '#core/standing/judgeRecord'
import type { ActivityRow } from '#server/access/seminar'
import { rowsOf, type Db } from '#server/database/client'
import { slicesOf } from '#server/database/slices'
import { activities, enrolments, jointSeminars, standingChanges, standings } from '#server/database/schema'
import { logError } from '#server/log'
import { doEach, mayBeTried } from '#server/services/dueWork'
import { prepareActivities } from '#server/services/contributing'
import { loadPlans } from '#server/services/planning'
import { askedBy, judgeWork } from './judgeWork'
import { loadRecords } from './records'

/** One student in one activity. */
interface Pair {
  readonly activityId: string
  readonly enrolmentId: string
}

const AT_ONCE = 1000 // pairs judged in the transaction that changed them; more are left to the job

/**
 * Makes what the activities need that this transaction has changed something in, and judges anew whom it has changed
 * something for, as its last act. What cannot be done now stays noted, is judged by whoever reads it, and is done by the
 * job; it stops nobody's write. Judging everybody in a changed plan is left to the job altogether.
 */
export async function keepOwnChanges(tx: Db, now: Date): Promise<void> {
  const changes = await ownChanges(tx)
  if (changes.length === 0) return
  try {
    await tx.transaction(async inner => {
      const rows = await activitiesOf(
        inner,
        changes.map(c => c.activityId),
      )
      // what is made for an activity may change what is asked of others
      const all = (await prepareActivities(inner, rows, now)) ? await ownChanges(inner) : changes
      const pairs = all.flatMap(({ activityId, enrolmentIds }) =>
        (enrolmentIds ?? []).map((enrolmentId): Pair => ({ activityId, enrolmentId })),
      )
      if (pairs.length === 0 || pairs.length > AT_ONCE) return
      await inner.delete(standingChanges).where(and(isOwn(), isNotNull(standingChanges.enrolmentId)))
      await keepStandings(inner, rows, pairs, now)
    })
  } catch (error) {
    logError('standings', error)
  }
}

const isOwn = () => sql`${standingChanges.madeIn} = pg_current_xact_id_if_assigned()`
/** What this transaction has changed, by activity; of a roster of thousands no more is read than would be judged here. */
const ownChanges = (tx: Db) =>
  rowsOf<{ activityId: string; enrolmentIds: string[] | null }>(
    tx,
    sql`select activity_id as "activityId",
        (array_agg(distinct enrolment_id) filter (where enrolment_id is not null))[1:${sql.raw(String(AT_ONCE + 1))}] as "enrolmentIds"
      from standing_changes where ${isOwn()} group by activity_id`,
  )

const activitiesOf = (tx: Db, ids: readonly string[]) =>
  tx
    .select()
    .from(activities)
    .where(and(inArray(activities.id, [...ids]), eq(activities.isTemplate, false)))
    .orderBy(asc(activities.id)) // whoever else makes the same waits, and nobody waits for each other

/** Judges students in activities and keeps where they stand. Whatever else changes one of them at the same time comes before or after. */
async function keepStandings(
  tx: Db,
  rows: readonly ActivityRow[],
  pairs: readonly Pair[],
  now: Date,
): Promise<void> {
  const people = await tx
    .select({
      enrolmentId: enrolments.id,
      seminarId: enrolments.seminarId,
      sectionId: enrolments.sectionId,
      joinedAt: enrolments.joinedAt,
    })
    .from(enrolments)
    .where(
      and(
        inArray(enrolments.id, [...new Set(pairs.map(p => p.enrolmentId))]),
        eq(enrolments.role, 'student'),
      ),
    )
  const known = new Map(people.map(p => [p.enrolmentId, p]))
  const activityIds = new Set(rows.map(a => a.id))
  const kept = pairs
    .filter(p => activityIds.has(p.activityId) && known.has(p.enrolmentId))
    .sort((a, b) => a.activityId.localeCompare(b.activityId) || a.enrolmentId.localeCompare(b.enrolmentId))
  if (kept.length === 0) return
  // rows are locked in one order, and only then is read what they are judged from: another process sees this or waits
  for (const some of slicesOf(kept))
    await tx
      .insert(standings)
      .values(some.map(p => ({ ...p, seminarId: known.get(p.enrolmentId)!.seminarId })))
      .onConflictDoUpdate({
        target: [standings.activityId, standings.enrolmentId],
        set: { seminarId: sql`excluded.seminar_id` },
      })
  const plans = await loadPlans(tx, rows)
  const records = await loadRecords(tx, [...activityIds], people)
  const planOf = new Map(plans.map(p => [p.activity.id, p]))
  const judged = kept.map(({ activityId, enrolmentId }) => {
    const plan = planOf.get(activityId)!
    const record = records.get(activityId)!.get(enrolmentId)!
    const holds = judgementHolds(askedBy(plan), enrolmentId, now)
    const times = record.shown.map(c => c.shownAt.getTime())
    return {
      activityId,
      enrolmentId,
      seminarId: record.student.seminarId,
      ...judgeWork(plan, record, now),
      words: record.shown.reduce((sum, c) => sum + c.words, 0),
      firstAt: times.length > 0 ? new Date(Math.min(...times)) : null,
      lastAt: times.length > 0 ? new Date(Math.max(...times)) : null,
      validFrom: holds.from,
      validUntil: holds.until,
    }
  })
  for (const some of slicesOf(judged))
    await tx
      .insert(standings)
      .values(some)
      .onConflictDoUpdate({ target: [standings.activityId, standings.enrolmentId], set: FROM_EXCLUDED })
}

const FROM_EXCLUDED = {
  standing: sql`excluded.standing`,
  ownStanding: sql`excluded.own_standing`,
  hasLetter: sql`excluded.has_letter`,
  shown: sql`excluded.shown`,
  words: sql`excluded.words`,
  drafts: sql`excluded.drafts`,
  firstAt: sql`excluded.first_at`,
  lastAt: sql`excluded.last_at`,
  checks: sql`excluded.checks`,
  validFrom: sql`excluded.valid_from`,
  validUntil: sql`excluded.valid_until`,
}

/**
 * Judges anew what was changed without being judged, after a change of a plan above all, and what has turned with time.
 *
 * @returns in how many activities
 */
export async function keepDue(db: Db, now: Date): Promise<number> {
  // of an activity that is no more, or a template, nothing is kept
  await db
    .delete(standingChanges)
    .where(
      sql`not exists (select 1 from activities a where a.id = ${standingChanges.activityId} and not a.is_template)`,
    )
  const changed = db.select({ id: standingChanges.activityId }).from(standingChanges)
  const turned = db.select({ id: standings.activityId }).from(standings).where(lte(standings.validUntil, now))
  const due = await db
    .select({ id: activities.id, seminarId: activities.seminarId })
    .from(activities)
    .where(and(inArray(activities.id, union(changed, turned)), mayBeTried('judge', activities.id, now)))
  return doEach(db, 'judge', due, now, (tx, { id }) => keepActivity(tx, id, now))
}

async function keepActivity(tx: Db, activityId: string, now: Date): Promise<1> {
  const rows = await activitiesOf(tx, [activityId])
  await prepareActivities(tx, rows, now)
  const changes = await tx
    .delete(standingChanges)
    .where(eq(standingChanges.activityId, activityId))
    .returning({ enrolmentId: standingChanges.enrolmentId })
  // who is no student any more stands nowhere; else their row would be found again each minute
  await tx.delete(standings).where(
    and(
      eq(standings.activityId, activityId),
      sql`not exists (select 1 from enrolments e join activities a on a.id = ${standings.activityId}
          where e.id = ${standings.enrolmentId} and e.role = 'student' and not a.is_template)`,
    ),
  )
  const isOfAll = changes.some(c => c.enrolmentId === null)
  const ids = isOfAll
    ? await studentsOf(tx, activityId)
    : [
        ...changes.flatMap(c => c.enrolmentId ?? []),
        ...(
          await tx
            .select({ id: standings.enrolmentId })
            .from(standings)
            .where(and(eq(standings.activityId, activityId), lte(standings.validUntil, now)))
        ).map(r => r.id),
      ]
  const pairs = [...new Set(ids)].map(enrolmentId => ({ activityId, enrolmentId }))
  await keepStandings(tx, rows, pairs, now)
  return 1
}

/** All students of the seminars that take part. */
async function studentsOf(tx: Db, activityId: string): Promise<string[]> {
  const rows = await tx
    .select({ id: enrolments.id })
    .from(enrolments)
    .where(
      and(
        eq(enrolments.role, 'student'),
        or(
          inArray(
            enrolments.seminarId,
            tx.select({ id: activities.seminarId }).from(activities).where(eq(activities.id, activityId)),
          ),
          inArray(
            enrolments.seminarId,
            tx
              .select({ id: jointSeminars.seminarId })
              .from(jointSeminars)
              .where(eq(jointSeminars.activityId, activityId)),
          ),
        ),
      ),
    )
  return rows.map(r => r.id)
}
