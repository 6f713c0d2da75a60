import { and, eq, inArray, ne, or, type SQL } from 'drizzle-orm'
import { usableBy, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, enrolments, jointSeminars, seminars } from '#server/database/schema'

/** Activities a seminar takes part in: its own, and those of other seminars it has joined. A condition on `activities`. */
export const takesPartIn = (db: Db, seminarId: string): SQL =>
  or(
    eq(activities.seminarId, seminarId),
    and(
      inArray(
        activities.id,
        db
          .select({ id: jointSeminars.activityId })
          .from(jointSeminars)
          .where(eq(jointSeminars.seminarId, seminarId)),
      ),
      ne(activities.state, 'draft'),
      eq(activities.isTemplate, false),
    ),
  )!

/** The seminars whose people take part in an activity: its home first. */
export async function seminarsOf(db: Db, activity: Pick<ActivityRow, 'id' | 'seminarId'>): Promise<string[]> {
  const joint = await db
    .select({ id: jointSeminars.seminarId })
    .from(jointSeminars)
    .where(eq(jointSeminars.activityId, activity.id))
  return [activity.seminarId, ...joint.map(j => j.id)]
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
