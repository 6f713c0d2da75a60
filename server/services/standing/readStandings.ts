import { and, inArray, sql } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { standings } from '#server/database/schema'
import type { ActivityPlan } from '#server/services/planning'
import type { Participant } from '#server/services/people'
import { judgeWork, type CheckedStanding, type KeptStanding } from './judgeWork'
import { loadRecords } from './records'

/** By activity and then enrolment. */
type OfAll<Kept> = ReadonlyMap<string, ReadonlyMap<string, Kept>>
export type CheckedStandings = OfAll<CheckedStanding>

const COLUMNS = {
  activityId: standings.activityId,
  enrolmentId: standings.enrolmentId,
  standing: standings.standing,
  ownStanding: standings.ownStanding,
  hasLetter: standings.hasLetter,
  shown: standings.shown,
  drafts: standings.drafts,
}

/**
 * Where students stand, from what is kept. What has changed since it was kept, or turned with time, is judged from the
 * contributions themselves, so that what is answered is always right; two queries more then, however many there are.
 *
 * @returns of every plan and student given, whether the activity is meant for them or not
 */
export async function readStandings(
  db: Db,
  plans: readonly ActivityPlan[],
  students: readonly Participant[],
  now: Date,
): Promise<OfAll<KeptStanding>> {
  if (plans.length === 0 || students.length === 0) return emptyFor(plans)
  const rows = await db
    .select(COLUMNS)
    .from(standings)
    .where(areKept(plans, students, now))
  return withOthers(db, plans, students, now, rows)
}

/** Where students stand, with their checks: for one activity or one student, because these are long. */
export async function readChecked(
  db: Db,
  plans: readonly ActivityPlan[],
  students: readonly Participant[],
  now: Date,
): Promise<CheckedStandings> {
  if (plans.length === 0 || students.length === 0) return emptyFor(plans)
  const rows = await db
    .select({ ...COLUMNS, checks: standings.checks })
    .from(standings)
    .where(areKept(plans, students, now))
  return withOthers(db, plans, students, now, rows)
}

/** One student's standing in one activity. */
export async function readOwn(
  db: Db,
  plan: ActivityPlan,
  student: Participant,
  now: Date,
): Promise<CheckedStanding> {
  const all = await readChecked(db, [plan], [student], now)
  return all.get(plan.activity.id)!.get(student.enrolmentId)!
}

/** Standings of those an activity is meant for, in the order in which they are given. */
export function standingsIn<Kept, S extends Participant>(
  plan: ActivityPlan,
  all: OfAll<Kept>,
  students: readonly S[],
): Array<Kept & { readonly student: S }> {
  const within = all.get(plan.activity.id)!
  return students.filter(plan.isMeant).map(student => ({ ...within.get(student.enrolmentId)!, student }))
}

const emptyFor = <Kept>(plans: readonly ActivityPlan[]): OfAll<Kept> =>
  new Map(plans.map(p => [p.activity.id, new Map<string, Kept>()]))

/** Rows of these that say what is so: they hold at this time, and nothing they were judged from has changed since. */
function areKept(plans: readonly ActivityPlan[], students: readonly Participant[], now: Date) {
  const at = sql`${now.toISOString()}::timestamptz`
  return and(
    inArray(
      standings.activityId,
      plans.map(p => p.activity.id),
    ),
    inArray(
      standings.enrolmentId,
      students.map(s => s.enrolmentId),
    ),
    sql`(${standings.validFrom} is null or ${standings.validFrom} <= ${at})`,
    sql`(${standings.validUntil} is null or ${standings.validUntil} > ${at})`,
    sql`not exists (select 1 from standing_changes c where c.activity_id = ${standings.activityId}
      and (c.enrolment_id is null or c.enrolment_id = ${standings.enrolmentId}))`,
  )
}

/** What was found, and the others judged now. */
async function withOthers<Kept extends KeptStanding>(
  db: Db,
  plans: readonly ActivityPlan[],
  students: readonly Participant[],
  now: Date,
  rows: ReadonlyArray<Kept & { readonly activityId: string; readonly enrolmentId: string }>,
): Promise<OfAll<Kept | CheckedStanding>> {
  const found = new Map(plans.map(p => [p.activity.id, new Map<string, Kept | CheckedStanding>()]))
  for (const row of rows) found.get(row.activityId)!.set(row.enrolmentId, row)
  const isMissing = (plan: ActivityPlan, student: Participant) =>
    !found.get(plan.activity.id)!.has(student.enrolmentId)
  const incomplete = plans.filter(p => found.get(p.activity.id)!.size < students.length)
  const others = students.filter(s => incomplete.some(p => isMissing(p, s)))
  if (others.length === 0) return found
  const records = await loadRecords(
    db,
    incomplete.map(p => p.activity.id),
    others,
  )
  for (const plan of incomplete)
    for (const student of others.filter(s => isMissing(plan, s))) {
      const record = records.get(plan.activity.id)!.get(student.enrolmentId)!
      found.get(plan.activity.id)!.set(student.enrolmentId, judgeWork(plan, record, now))
    }
  return found
}
