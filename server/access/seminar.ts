import { and, eq, ne } from 'drizzle-orm'
import type { H3Event } from 'h3'
import type { Db } from '#server/database/client'
import { activities, contributions, enrolments, seminars } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { requirePerson, type Person } from './session'

export type Enrolment = typeof enrolments.$inferSelect
export type Seminar = typeof seminars.$inferSelect
export type ActivityRow = typeof activities.$inferSelect

/** Who asks, and as what. */
export interface Actor { readonly person: Person, readonly enrolment: Enrolment, readonly seminar: Seminar }

export const isStaff = (enrolment: Pick<Enrolment, 'role'>): boolean => enrolment.role === 'instructor' || enrolment.role === 'assistant'

// One sentence for "is not there" and "is not yours": the difference would tell outsiders what exists.
const nothingHere = () => new Problem(404, 'notFound', 'There is nothing at this address, or it is not open to you.')
const notYours = (sentence: string) => new Problem(403, 'forbidden', sentence)

/** The signed-in person's place in a seminar. Withdrawn people are out. */
export async function requireMember(event: H3Event, db: Db, seminarId: string): Promise<Actor> {
  const person = await requirePerson(event, db)
  const [row] = await db.select({ enrolment: enrolments, seminar: seminars }).from(enrolments)
    .innerJoin(seminars, eq(seminars.id, enrolments.seminarId))
    .where(and(eq(enrolments.seminarId, seminarId), eq(enrolments.personId, person.id), ne(enrolments.state, 'withdrawn')))
  if (!row) throw nothingHere()
  return { person, ...row }
}

export async function requireStaff(event: H3Event, db: Db, seminarId: string): Promise<Actor> {
  const actor = await requireMember(event, db, seminarId)
  if (!isStaff(actor.enrolment)) throw notYours('Only the instructor and assistants of this seminar can do this.')
  return actor
}

/** The activity, to a member who may know of it: everyone but staff waits until it is published and has opened. */
export async function requireActivity(event: H3Event, db: Db, activityId: string, now: Date): Promise<Actor & { readonly activity: ActivityRow }> {
  const person = await requirePerson(event, db)
  const [activity] = await db.select().from(activities).where(eq(activities.id, activityId))
  if (!activity) throw nothingHere()
  const actor = await requireMember(event, db, activity.seminarId)
  const open = activity.state === 'published' && activity.opensAt <= now
  if (!open && !isStaff(actor.enrolment)) throw nothingHere()
  return { ...actor, person, activity }
}

export async function requireMarker(event: H3Event, db: Db, activityId: string, now: Date): Promise<Actor & { readonly activity: ActivityRow }> {
  const actor = await requireActivity(event, db, activityId, now)
  if (!isStaff(actor.enrolment)) throw notYours('Marks are made by the instructor and assistants of this seminar.')
  return actor
}

/** Someone who may add to the activity: staff and students, not observers. */
export async function requireContributor(event: H3Event, db: Db, activityId: string, now: Date): Promise<Actor & { readonly activity: ActivityRow }> {
  const actor = await requireActivity(event, db, activityId, now)
  if (actor.enrolment.role === 'observer') throw notYours('As an observer you can read here; writing is for the seminar.')
  return actor
}

/** The contribution with its activity, to someone who may write here; what may be done with it, its service decides. */
export async function requireContribution(event: H3Event, db: Db, contributionId: string, now: Date) {
  await requirePerson(event, db)
  const [contribution] = await db.select().from(contributions).where(eq(contributions.id, contributionId))
  if (!contribution) throw nothingHere()
  const actor = await requireContributor(event, db, contribution.activityId, now)
  return { ...actor, contribution }
}

export { nothingHere, notYours }
