import { usableBy } from '#server/access/seminar'
import { and, eq, ne } from 'drizzle-orm'
import ical, { ICalCalendarMethod } from 'ical-generator'
import { isWorkingPhase, ownDueAt } from '#core/planning/schedule'
import type { Db } from '#server/database/client'
import { activities, enrolments, persons, seminars } from '#server/database/schema'
import { ownAddress } from '#server/mail/mailServer'
import { loadPlans } from './activityPlan'
import { takesPartIn } from './jointActivities'
import { phaseWord } from './scheduleWords'

/**
 * A person's due times in all their seminars, as iCalendar (RFC 5545). Each due time keeps its UID and counts its changes in
 * SEQUENCE, so that a calendar moves it instead of showing it twice. Students see what is published and meant for them, with
 * their own extensions; staff also when marking ends. Null when the address opens nothing (any more).
 */
export async function calendarFeed(db: Db, secret: string, now: Date): Promise<string | null> {
  const [person] = await db.select().from(persons).where(eq(persons.calendarSecret, secret))
  if (!person) return null
  const memberships = await db
    .select({ enrolment: enrolments, seminar: seminars })
    .from(enrolments)
    .innerJoin(seminars, eq(seminars.id, enrolments.seminarId))
    .where(
      and(
        eq(enrolments.personId, person.id),
        usableBy(person),
        eq(enrolments.state, 'active'),
        eq(seminars.state, 'active'),
      ),
    )
  const feed = ical({
    name: 'Jovrel',
    method: ICalCalendarMethod.PUBLISH,
    prodId: { company: 'Jovrel', product: 'Seminars', language: 'EN' },
  })
  const rows =
    memberships.length === 0
      ? []
      : await db
          .select()
          .from(activities)
          .where(
            and(
              takesPartIn(db, ...memberships.map(m => m.seminar.id)),
              ne(activities.state, 'draft'),
              eq(activities.isTemplate, false),
            ),
          )
  for (const plan of await loadPlans(db, rows)) {
    const { enrolment, seminar } =
      memberships.find(m => m.seminar.id === plan.activity.seminarId) ??
      memberships.find(m => plan.joint.includes(m.seminar.id))!
    const staff = enrolment.role === 'instructor' || enrolment.role === 'assistant'
    if (
      !staff &&
      !plan.isMeant({
        enrolmentId: enrolment.id,
        seminarId: enrolment.seminarId,
        sectionId: enrolment.sectionId,
        joinedAt: enrolment.joinedAt,
      })
    )
      continue
    const extension = plan.extensions.get(enrolment.id) ?? null
    for (const phase of plan.phases.filter(p => isWorkingPhase(p.name) || (staff && p.name === 'mark'))) {
      const dueAt = isWorkingPhase(phase.name) ? ownDueAt(phase.endsAt, extension) : phase.endsAt
      feed.createEvent({
        id: `${plan.activity.id}.${phase.name}@jovrel`,
        sequence: plan.activity.version,
        stamp: now,
        start: dueAt,
        end: dueAt,
        summary: `${plan.activity.title}: ${phaseWord(phase.name)} ends`,
        description: `${seminar.title}\n${plan.activity.summary}`,
        url: `${ownAddress()}/seminars/${seminar.id}/activities/${plan.activity.id}`,
      })
    }
  }
  return feed.toString()
}
