import { and, asc, eq, inArray, isNull, or } from 'drizzle-orm'
import { wikiReach, type WikiReach } from '#core/kinds/wiki/wikiReach'
import { titleKey, wikiOf, type WikiSettings } from '#core/kinds/wiki/wikiSettings'
import { scheduleState, type ScheduleState } from '#core/planning/schedule'
import {
  isStaff,
  nothingHere,
  type Actor,
  type ActivityRow,
  type Enrolment,
  type ActivityActor,
} from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { enrolments, pageComments, pageVersions, wikiPages } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { readerRole } from '#server/services/contributing'
import { authorView } from '#server/services/people'
import {
  type ActivityPlan,
  type AudienceGroup,
  groupsOf,
  groupsOfEach,
  loadPlan,
  loadPlans,
} from '#server/services/planning'
import type { AuthorView } from '#shared/contributing/thread'

export type PageRow = typeof wikiPages.$inferSelect

/** A wiki activity for one person: its groups, and what they may do in each of its wikis. */
export interface WikiAccess {
  readonly settings: WikiSettings
  readonly plan: ActivityPlan
  readonly groups: readonly AudienceGroup[] // none: the class has one wiki
  readonly ownGroup: string | null
  readonly time: ScheduleState
  readonly trialBy: string | null // a practice student: their own wiki is a trial of their own, in nobody else's
  readonly reach: (groupId: string | null) => WikiReach
}
/** Which of an activity's wikis: a group's, the class's, or a practice student's trial. */
export interface WikiSpace {
  readonly groupId: string | null
  readonly trialBy: string | null
}

export async function wikiAccess(
  db: Db,
  actor: Pick<ActivityActor, 'activity' | 'enrolment'> & {
    readonly seminar: Pick<Actor['seminar'], 'state'>
  },
  now: Date,
): Promise<WikiAccess> {
  return wikiAccessFor(
    await wikiPlan(db, actor.activity),
    actor.enrolment,
    actor.seminar.state === 'archived',
    now,
  )
}

/** The same of several wikis, by activity. */
export async function wikiAccessOfEach(
  db: Db,
  { enrolment, seminar }: Pick<Actor, 'enrolment' | 'seminar'>,
  activities: readonly ActivityRow[],
  now: Date,
): Promise<Map<string, WikiAccess>> {
  const [plans, groups] = await Promise.all([loadPlans(db, activities), groupsOfEach(db, activities)])
  return new Map(
    plans.map(plan => {
      const { id } = plan.activity
      const of = { plan, groups: groups.get(id)! }
      return [id, wikiAccessFor(of, enrolment, seminar.state === 'archived', now)]
    }),
  )
}

/** What of a wiki activity is the same for everyone. */
export async function wikiPlan(
  db: Db,
  activity: ActivityRow,
): Promise<{ readonly plan: ActivityPlan; readonly groups: readonly AudienceGroup[] }> {
  if (activity.kind !== 'wiki') throw nothingHere()
  const [plan, groups] = await Promise.all([loadPlan(db, activity), groupsOf(db, activity)])
  return { plan, groups }
}

export function wikiAccessFor(
  { plan, groups }: Awaited<ReturnType<typeof wikiPlan>>,
  enrolment: Enrolment,
  archived: boolean,
  now: Date,
): WikiAccess {
  const { activity } = plan
  const settings = wikiOf(activity.settings)
  const ownGroup = groups.find(g => g.memberIds.includes(enrolment.id))?.id ?? null
  const published = activity.state === 'published' && now >= activity.opensAt
  const time: ScheduleState = published
    ? scheduleState(
        { opensAt: activity.opensAt, phases: plan.phases },
        now,
        plan.extensions.get(enrolment.id) ?? null,
      )
    : { kind: 'before', opensAt: activity.opensAt }
  const isClass = activity.audience.kind !== 'groups'
  const trialBy = enrolment.state === 'practice' ? enrolment.id : null
  return {
    settings,
    plan,
    groups,
    ownGroup,
    time,
    trialBy,
    reach: groupId => {
      const known = groupId === null ? isClass || trialBy !== null : groups.some(g => g.id === groupId)
      const isOwn = trialBy ? groupId === null : isClass || groupId === ownGroup
      return known
        ? wikiReach({ role: readerRole(enrolment), isOwn, othersRead: settings.othersRead, time, archived })
        : { read: false, write: false, comment: false }
    },
  }
}

/** Whose pages a reader gets under a group: a practice student's own wiki is their trial. */
export const wikiSpaceOf = (access: Pick<WikiAccess, 'trialBy'>, groupId: string | null): WikiSpace => ({
  groupId,
  trialBy: groupId === null ? access.trialBy : null,
})
export const inSpace = ({ groupId, trialBy }: WikiSpace) =>
  and(
    groupId === null ? isNull(wikiPages.groupId) : eq(wikiPages.groupId, groupId),
    trialBy === null ? isNull(wikiPages.trialBy) : eq(wikiPages.trialBy, trialBy),
  )

/** A page with what its reader may do; to everyone else it is not there. */
export async function requirePage(
  db: Db,
  actor: ActivityActor,
  pageId: string,
  now: Date,
  removed = false,
): Promise<{ readonly access: WikiAccess; readonly page: PageRow; readonly reach: WikiReach }> {
  const access = await wikiAccess(db, actor, now)
  const [page] = await db
    .select()
    .from(wikiPages)
    .where(
      and(
        eq(wikiPages.id, pageId),
        eq(wikiPages.activityId, actor.activity.id),
        removed ? undefined : isNull(wikiPages.removedAt),
      ),
    )
  const reach = page && mayReach(access, page) ? access.reach(page.groupId) : null
  if (!page || !reach?.read) throw nothingHere()
  return { access, page, reach }
}

/** Whether a page is in one of the wikis of its activity for this reader: another's trial is in none. */
export const mayReach = (access: WikiAccess, page: Pick<PageRow, 'groupId' | 'trialBy'>): boolean =>
  page.trialBy === wikiSpaceOf(access, page.groupId).trialBy

/** The page that something which changed is, or is about: the page itself, a version of it, a comment on it. */
export async function pageOfChange(db: Db, id: string): Promise<PageRow | null> {
  const [page] = await db
    .select()
    .from(wikiPages)
    .where(
      or(
        eq(wikiPages.id, id),
        inArray(
          wikiPages.id,
          db.select({ id: pageVersions.pageId }).from(pageVersions).where(eq(pageVersions.id, id)),
        ),
        inArray(
          wikiPages.id,
          db.select({ id: pageComments.pageId }).from(pageComments).where(eq(pageComments.id, id)),
        ),
      ),
    )
  return page ?? null
}

/** Refuses a change of pages where the phase, or one's part in it, does not allow one. */
export function requireMayWrite(access: WikiAccess, reach: WikiReach, actor: ActivityActor): void {
  if (reach.write) return
  if (!reach.comment && access.time.kind === 'working')
    throw new Problem(403, 'notYours', 'This wiki is another group’s: it can be read here.')
  throw refusedField(
    'doc',
    'notWriting',
    access.time.kind === 'working'
      ? 'The pages rest while they are commented on. They can be changed again when revising begins; your text is kept here.'
      : `Writing is over${isStaff(actor.enrolment) ? '' : ' for you'}. Your text is kept here; write to your instructor if something is missing.`,
  )
}

/** The pages of one wiki, in the order of their places. */
export const pagesOf = (db: Db, activityId: string, space: WikiSpace): Promise<PageRow[]> =>
  db
    .select()
    .from(wikiPages)
    .where(and(eq(wikiPages.activityId, activityId), inSpace(space), isNull(wikiPages.removedAt)))
    .orderBy(asc(wikiPages.position), asc(wikiPages.id))

/** The page a title leads to: by its name now, else by one it had. */
export const pageAt = (pages: readonly PageRow[], title: string): PageRow | undefined => {
  const key = titleKey(title)
  return pages.find(p => p.titleKey === key) ?? pages.find(p => p.formerKeys.includes(key))
}

/** Everyone who takes part or took part, by enrolment: names of those who wrote. */
export async function peopleIn(
  db: Db,
  seminarIds: readonly string[],
  reader: Enrolment,
): Promise<Map<string, AuthorView>> {
  const rows = await db
    .select({
      enrolmentId: enrolments.id,
      role: enrolments.role,
      name: enrolments.name,
      givenName: enrolments.givenName,
      familyName: enrolments.familyName,
    })
    .from(enrolments)
    .where(inArray(enrolments.seminarId, [...seminarIds]))
  return new Map(rows.map(r => [r.enrolmentId, authorView(r, reader.id)]))
}
