import { and, eq, inArray, ne, type SQL } from 'drizzle-orm'
import { alias, unionAll } from 'drizzle-orm/pg-core'
import { usableBy, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, enrolments, jointSeminars, seminars } from '#server/database/schema'

/**
 * Activities that seminars take part in: their own, and those of other seminars they have joined. A condition on
 * `activities` in one list of ids, because an `or` between the two would read every activity there is.
 */
export function takesPartIn(db: Db, ...seminarIds: readonly string[]): SQL {
  const [own, other] = [alias(activities, 'own'), alias(activities, 'other')]
  const ofTheirs = db
    .select({ id: own.id })
    .from(own)
    .where(inArray(own.seminarId, [...seminarIds]))
  const joined = db
    .select({ id: other.id })
    .from(jointSeminars)
    .innerJoin(other, eq(other.id, jointSeminars.activityId))
    .where(
      and(
        inArray(jointSeminars.seminarId, [...seminarIds]),
        ne(other.state, 'draft'),
        eq(other.isTemplate, false),
      ),
    )
  return inArray(activities.id, unionAll(ofTheirs, joined))
}

/** The seminars whose people take part in an activity: its home first. */
export async function seminarsOf(db: Db, activity: Pick<ActivityRow, 'id' | 'seminarId'>): Promise<string[]> {
  const found = await seminarsOfEach(db, [activity])
  return found.get(activity.id)!
}

/** The same of several activities, by activity. */
export async function seminarsOfEach(
  db: Db,
  activities: ReadonlyArray<Pick<ActivityRow, 'id' | 'seminarId'>>,
): Promise<Map<string, string[]>> {
  const found = new Map(activities.map(a => [a.id, [a.seminarId]]))
  const joint = await db
    .select({ activityId: jointSeminars.activityId, id: jointSeminars.seminarId })
    .from(jointSeminars)
    .where(inArray(jointSeminars.activityId, [...found.keys()]))
  for (const { activityId, id } of joint) found.get(activityId)!.push(id)
  return found
}

/** Other seminars the actor instructs: those that an activity can be held with. */
export function otherSeminars(db: Db, actor: Actor) {
  return db
    .select({ id: seminars.id, code: seminars.code, title: seminars.title })
    .from(enrolments)
    .innerJoin(seminars, eq(seminars.id, enrolments.seminarId))
    .where(
      and(
        eq(enrolments.personId, actor.person.id),
        usableBy(actor.person),
        eq(enrolments.role, 'instructor'),
        eq(enrolments.state, 'active'),
        eq(seminars.state, 'active'),
        ne(seminars.id, actor.seminar.id),
      ),
    )
}
