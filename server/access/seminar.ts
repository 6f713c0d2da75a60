import { and, eq, inArray, ne } from 'drizzle-orm'
import type { H3Event } from 'h3'
import type { Db } from '#server/database/client'
import {
  activities,
  contributions,
  enrolments,
  groupMembers,
  groups,
  jointSeminars,
  persons,
  rubrics,
  seminars,
} from '#server/database/schema'
import { isMeant } from '#core/planning/audience'
import { Problem } from '#server/http/problem'
import { isDemandedOfStaff } from './demands'
import { actingAs, requirePerson, type Person } from './session'

export type Enrolment = typeof enrolments.$inferSelect
export type Seminar = typeof seminars.$inferSelect
export type ActivityRow = typeof activities.$inferSelect

/** Who asks, and as what; named as the seminar names them. */
export interface Actor {
  readonly person: Person
  readonly enrolment: Enrolment
  readonly seminar: Seminar
  readonly studentsEye: boolean
}

/** Somebody of a seminar at one of its activities. */
export type ActivityActor = Actor & { readonly activity: ActivityRow }

export const isStaff = (enrolment: Pick<Enrolment, 'role'>): boolean =>
  enrolment.role === 'instructor' || enrolment.role === 'assistant'

// One sentence for "is not there" and "is not yours": the difference would tell outsiders what exists.
const nothingHere = () =>
  new Problem(404, 'notFound', 'There is nothing at this address, or it is not open to you.')
const notYours = (sentence: string) => new Problem(403, 'forbidden', sentence)

/** A person under the names they go by in a seminar: a roster's belong to the enrolment, not to the account. */
export function asNamedIn<P extends Person>(person: P, { name, givenName, familyName }: Enrolment): P {
  return { ...person, name, givenName, familyName }
}

/** The condition on a person's enrolments that they can use: a role given to an address, once the address has proved to be theirs. */
export const usableBy = ({ confirmedAt }: Pick<Person, 'confirmedAt'>) =>
  confirmedAt ? undefined : eq(enrolments.givenToAddress, false)

function requireUsable(person: Person, enrolment: Enrolment): void {
  if (enrolment.givenToAddress && !person.confirmedAt)
    throw new Problem(
      403,
      'addressNotConfirmed',
      'You were added to this seminar by your e-mail address, and it is not confirmed yet. Open the link in the mail we sent you; your account page can send it again.',
    )
}

/** The signed-in person's place in a seminar. Withdrawn people are out. */
export async function requireMember(event: H3Event, db: Db, seminarId: string): Promise<Actor> {
  const person = await requirePerson(event)
  const [row] = await db
    .select({ enrolment: enrolments, seminar: seminars })
    .from(enrolments)
    .innerJoin(seminars, eq(seminars.id, enrolments.seminarId))
    .where(
      and(
        eq(enrolments.seminarId, seminarId),
        eq(enrolments.personId, person.id),
        ne(enrolments.state, 'withdrawn'),
      ),
    )
  if (!row) throw nothingHere()
  event.context.seminarId = seminarId // for the access log
  requireUsable(person, row.enrolment)
  requireSecondFactor(person, row.enrolment)
  return await throughStudentsEye(event, db, {
    person: asNamedIn(person, row.enrolment),
    ...row,
    studentsEye: false,
  })
}

/** Where the installation demands it, staff come in only with a second step set up. */
function requireSecondFactor(person: Person, enrolment: Enrolment): void {
  if (!isStaff(enrolment) || person.hasSecondFactor || !isDemandedOfStaff()) return
  throw new Problem(
    403,
    'secondFactor',
    'Staff of this Jovrel sign in with a second step. Set it up in your account; then this page opens.',
  )
}

/** Somebody who looks through a practice student's eyes is that student until they look up again. */
async function throughStudentsEye(event: H3Event, db: Db, actor: Actor): Promise<Actor> {
  if (!isStaff(actor.enrolment)) return actor
  const eye = await actingAs(event)
  if (!eye) return actor
  const [practice] = await db
    .select({ enrolment: enrolments, person: persons })
    .from(enrolments)
    .innerJoin(persons, eq(persons.id, enrolments.personId))
    .where(
      and(
        eq(enrolments.id, eye),
        eq(enrolments.seminarId, actor.seminar.id),
        eq(persons.practiceOf, actor.person.id),
      ),
    )
  if (!practice) return actor
  const { id, name, givenName, familyName } = practice.person
  const person = { id, name, givenName, familyName, confirmedAt: actor.person.confirmedAt }
  return {
    ...actor,
    person: asNamedIn({ ...person, foundsSeminars: false }, practice.enrolment),
    enrolment: practice.enrolment,
    studentsEye: true,
  }
}

/** A member as themselves, also while they look through a practice student's eyes. */
export async function requireOwnSelf(event: H3Event, db: Db, seminarId: string): Promise<Actor> {
  const person = await requirePerson(event)
  const [row] = await db
    .select({ enrolment: enrolments, seminar: seminars })
    .from(enrolments)
    .innerJoin(seminars, eq(seminars.id, enrolments.seminarId))
    .where(
      and(
        eq(enrolments.seminarId, seminarId),
        eq(enrolments.personId, person.id),
        ne(enrolments.state, 'withdrawn'),
      ),
    )
  if (!row) throw nothingHere()
  requireUsable(person, row.enrolment)
  requireSecondFactor(person, row.enrolment)
  return { person: asNamedIn(person, row.enrolment), ...row, studentsEye: false }
}

/** Someone who manages the seminar: its settings, people, groups and plan. Assistants mark; they do not manage. */
export async function requireInstructor(event: H3Event, db: Db, seminarId: string): Promise<Actor> {
  const actor = await requireMember(event, db, seminarId)
  if (actor.enrolment.role !== 'instructor')
    throw notYours('Only the instructor of this seminar can do this.')
  return actor
}

/** A manager who changes something: an archived seminar is read, not changed. */
export async function requireManager(event: H3Event, db: Db, seminarId: string): Promise<Actor> {
  const actor = await requireInstructor(event, db, seminarId)
  if (actor.seminar.state === 'archived')
    throw new Problem(409, 'archived', 'This seminar is closed. Reopen it in its settings to change it.')
  return actor
}

/** The activity, to someone who plans it. */
export async function requirePlanner(
  event: H3Event,
  db: Db,
  activityId: string,
  change = true,
): Promise<Actor & { readonly activity: ActivityRow }> {
  await requirePerson(event)
  const [activity] = await db.select().from(activities).where(eq(activities.id, activityId))
  if (!activity) throw nothingHere()
  const member = await requireMember(event, db, activity.seminarId)
  if (!isStaff(member.enrolment) && !(await isOpenTo(db, member, activity, new Date(8.64e15))))
    throw nothingHere()
  const actor = change
    ? await requireManager(event, db, activity.seminarId)
    : await requireInstructor(event, db, activity.seminarId)
  return { ...actor, activity }
}

/** Whether a member who is not staff may know of the activity. */
async function isOpenTo(db: Db, { enrolment }: Actor, activity: ActivityRow, now: Date): Promise<boolean> {
  return (
    activity.state === 'published' &&
    !activity.isTemplate &&
    activity.opensAt <= now &&
    (await isMeantFor(db, activity, enrolment))
  )
}

export async function requireStaff(event: H3Event, db: Db, seminarId: string): Promise<Actor> {
  const actor = await requireMember(event, db, seminarId)
  if (!isStaff(actor.enrolment))
    throw notYours('Only the instructor and assistants of this seminar can do this.')
  return actor
}

/** Staff who write or change something: a seminar that is over is read only. */
export async function requireStaffWriter(event: H3Event, db: Db, seminarId: string): Promise<Actor> {
  const actor = await requireStaff(event, db, seminarId)
  requireMayWrite(actor)
  return actor
}

/** Whoever writes and is written to here: staff and students. */
export async function requireCorrespondent(event: H3Event, db: Db, seminarId: string): Promise<Actor> {
  const actor = await requireMember(event, db, seminarId)
  if (actor.enrolment.role === 'observer') throw nothingHere()
  return actor
}

/** The activity, to a member who may know of it: everyone but staff waits until it is published and has opened. */
export async function requireActivity(
  event: H3Event,
  db: Db,
  activityId: string,
  now: Date,
): Promise<Actor & { readonly activity: ActivityRow }> {
  await requirePerson(event)
  const [activity] = await db.select().from(activities).where(eq(activities.id, activityId))
  if (!activity) throw nothingHere()
  const actor = await requireMembershipIn(event, db, activity)
  if (!isStaff(actor.enrolment) && !(await isOpenTo(db, actor, activity, now))) throw nothingHere()
  return { ...actor, activity }
}

/**
 * The person's place among those who take part: in the activity's own seminar, or in one that has joined
 * it. Time and term are the home's.
 */
async function requireMembershipIn(event: H3Event, db: Db, activity: ActivityRow): Promise<Actor> {
  const person = await requirePerson(event)
  const joint = await db
    .select({ seminarId: jointSeminars.seminarId })
    .from(jointSeminars)
    .where(eq(jointSeminars.activityId, activity.id))
  const guests =
    joint.length > 0
      ? await db
          .select({ seminarId: enrolments.seminarId })
          .from(enrolments)
          .where(
            and(
              eq(enrolments.personId, person.id),
              usableBy(person),
              inArray(enrolments.seminarId, [activity.seminarId, ...joint.map(j => j.seminarId)]),
              ne(enrolments.state, 'withdrawn'),
            ),
          )
      : []
  const seminarId =
    guests.length === 0 || guests.some(g => g.seminarId === activity.seminarId)
      ? activity.seminarId
      : guests[0]!.seminarId
  const actor = await requireMember(event, db, seminarId)
  if (seminarId === activity.seminarId) return actor
  const [home] = await db.select().from(seminars).where(eq(seminars.id, activity.seminarId))
  return { ...actor, seminar: home! }
}

/** Whether the activity is meant for a member: observers see what everyone sees, a practice student sees all there is. */
export async function isMeantFor(
  db: Db,
  activity: Pick<ActivityRow, 'audience' | 'seminarId'>,
  enrolment: Enrolment,
): Promise<boolean> {
  const { audience } = activity
  if (enrolment.seminarId !== activity.seminarId) return true // a joint seminar takes part as a whole
  if (audience.kind === 'everyone' || enrolment.state === 'practice' || enrolment.role !== 'student')
    return true
  const planId = audience.kind === 'groups' ? audience.groupPlanId : null
  const [own, all] = planId
    ? await Promise.all([
        db
          .select({ id: groupMembers.groupId })
          .from(groupMembers)
          .where(and(eq(groupMembers.enrolmentId, enrolment.id), eq(groupMembers.groupPlanId, planId))),
        db.select({ id: groups.id }).from(groups).where(eq(groups.groupPlanId, planId)),
      ])
    : [[], []]
  return isMeant(
    audience,
    { enrolmentId: enrolment.id, sectionId: enrolment.sectionId, groupIds: own.map(g => g.id) },
    all.map(g => g.id),
  )
}

export async function requireMarker(
  event: H3Event,
  db: Db,
  activityId: string,
  now: Date,
): Promise<Actor & { readonly activity: ActivityRow }> {
  const actor = await requireActivity(event, db, activityId, now)
  if (!isStaff(actor.enrolment))
    throw notYours('Marks are made by the instructor and assistants of this seminar.')
  return actor
}

/** Someone who may add to the activity: staff and students, not observers. */
export async function requireContributor(
  event: H3Event,
  db: Db,
  activityId: string,
  now: Date,
): Promise<Actor & { readonly activity: ActivityRow }> {
  const actor = await requireActivity(event, db, activityId, now)
  requireMayWrite(actor)
  return actor
}

/** Refuses whoever only reads, and everyone once a seminar is over: by whatever door they came. */
export function requireMayWrite({ enrolment, seminar }: Pick<Actor, 'enrolment' | 'seminar'>): void {
  if (enrolment.role === 'observer')
    throw notYours('As an observer you can read here; writing is for the seminar.')
  if (seminar.state === 'archived')
    throw new Problem(409, 'archived', 'This seminar is closed: it can be read, nothing is added any more.')
}

/** The contribution with its activity, to someone who may write here; what may be done with it, its service decides. */
export async function requireContribution(event: H3Event, db: Db, contributionId: string, now: Date) {
  await requirePerson(event)
  const [contribution] = await db.select().from(contributions).where(eq(contributions.id, contributionId))
  if (!contribution) throw nothingHere()
  const actor = await requireContributor(event, db, contribution.activityId, now)
  return { ...actor, contribution }
}

/** Someone who keeps the library a rubric is in; assistants read and export. */
export async function requireRubricOwner(
  event: H3Event,
  db: Db,
  rubricId: string,
  change: boolean,
): Promise<Actor> {
  await requirePerson(event)
  const [rubric] = await db
    .select({ seminarId: rubrics.seminarId })
    .from(rubrics)
    .where(eq(rubrics.id, rubricId))
  if (!rubric) throw nothingHere()
  return change ? requireManager(event, db, rubric.seminarId) : requireStaff(event, db, rubric.seminarId)
}

/** Whether somebody may know of an activity, where there is no request to ask: a feed is read without signing in. */
export async function mayKnowOf(
  db: Db,
  activity: ActivityRow,
  enrolment: Enrolment,
  now: Date,
): Promise<boolean> {
  if (enrolment.seminarId !== activity.seminarId) {
    const joined = await db.$count(
      jointSeminars,
      and(eq(jointSeminars.activityId, activity.id), eq(jointSeminars.seminarId, enrolment.seminarId)),
    )
    if (joined === 0) return false
  }
  return (
    isStaff(enrolment) ||
    (activity.state === 'published' &&
      !activity.isTemplate &&
      activity.opensAt <= now &&
      (await isMeantFor(db, activity, enrolment)))
  )
}

export { nothingHere, notYours }
