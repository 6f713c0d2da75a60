import { and, asc, desc, eq, inArray, isNull, ne, or, sql } from 'drizzle-orm'
import { isStaff, type Actor, type ActivityRow, type Enrolment } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, contributions, enrolments, wikiPages } from '#server/database/schema'
import { hooksOf, readableIn } from '#server/services/contributing'
import type { Found } from '#shared/planning/find'
import { loadPlans, takesPartIn } from '#server/services/planning'

const MOST = 8 // of each sort
const MOST_HITS = 60 // contributions looked at before their reader's view is asked

/**
 * Activities, people and contributions that hold the words. A contribution is found only through what its reader gets of
 * its activity anyway: nothing is learnt by searching that could not be read.
 */
export async function find(db: Db, actor: Actor, words: string, now: Date): Promise<Found> {
  const { seminar, enrolment } = actor
  const like = `%${words.replace(/[\\%_]/g, '\\$&')}%`
  const query = sql`websearch_to_tsquery('english', ${words})`
  const searched = db.select({ id: activities.id }).from(activities).where(takesPartIn(db, seminar.id))
  const currentPages = db
    .select({ id: wikiPages.currentId })
    .from(wikiPages)
    .where(and(sql`${wikiPages.activityId} = any(array(${searched}))`, isNull(wikiPages.removedAt)))
  const [activityRows, people, hits] = await Promise.all([
    db
      .select()
      .from(activities)
      .where(
        and(
          takesPartIn(db, seminar.id),
          or(sql`${activities.title} ilike ${like}`, sql`${activities.summary} ilike ${like}`),
        ),
      )
      .orderBy(asc(activities.position))
      .limit(40),
    db
      .select({ id: enrolments.id, name: enrolments.name, role: enrolments.role })
      .from(enrolments)
      .where(
        and(
          eq(enrolments.seminarId, seminar.id),
          eq(enrolments.state, 'active'),
          sql`${enrolments.name} ilike ${like}`,
        ),
      )
      .orderBy(asc(enrolments.familyName))
      .limit(MOST),
    db
      .select({ id: contributions.id, activityId: contributions.activityId, text: contributions.text })
      .from(contributions)
      .where(
        and(
          // as a list that is made first: a condition on it would search the words of the whole installation
          sql`${contributions.activityId} = any(array(${searched}))`,
          ne(contributions.state, 'draft'),
          sql`to_tsvector('english', ${contributions.text}) @@ ${query}`,
          // of a wiki's page what it says now
          or(ne(contributions.type, 'pageVersion'), sql`${contributions.id} = any(array(${currentPages}))`),
        ),
      )
      .orderBy(desc(sql`ts_rank(to_tsvector('english', ${contributions.text}), ${query})`))
      .limit(MOST_HITS),
  ])
  const homes =
    hits.length > 0
      ? await db
          .select()
          .from(activities)
          .where(inArray(activities.id, [...new Set(hits.map(h => h.activityId))]))
      : []
  const known = await knownTo(db, enrolment, [...activityRows, ...homes], now)
  const shownActivities = activityRows.filter(a => known.has(a.id)).slice(0, MOST)
  const found = await readableHits(
    db,
    actor,
    homes.filter(a => known.has(a.id)),
    hits,
    now,
  )
  return {
    activities: shownActivities.map(a => ({
      id: a.id,
      kind: a.kind,
      title: a.title,
      state: a.state,
      template: a.isTemplate,
    })),
    people: people.map(p => ({ id: p.id, name: p.name, role: p.role })),
    contributions: found
      .slice(0, MOST)
      .map(({ text, ...hit }) => ({ ...hit, excerpt: excerptOf(text, words) })),
  }
}

/** Those of the activities that somebody may know of: staff all, others what is open and meant for them. */
async function knownTo(
  db: Db,
  enrolment: Enrolment,
  all: readonly ActivityRow[],
  now: Date,
): Promise<ReadonlySet<string>> {
  if (isStaff(enrolment)) return new Set(all.map(a => a.id))
  const open = all.filter(a => a.state === 'published' && !a.isTemplate && a.opensAt <= now)
  const plans = await loadPlans(db, open)
  // observers see what everyone sees, a practice student sees all there is
  const seesAll = enrolment.role !== 'student' || enrolment.state === 'practice'
  const me = {
    enrolmentId: enrolment.id,
    seminarId: enrolment.seminarId,
    sectionId: enrolment.sectionId,
    joinedAt: enrolment.joinedAt,
  }
  return new Set(plans.filter(p => seesAll || p.isMeant(me)).map(p => p.activity.id))
}

interface Hit {
  readonly id: string
  readonly activityId: string
  readonly text: string
}

type ReadableHit = Omit<Found['contributions'][number], 'excerpt'> & { readonly text: string }

/** What of some hits their reader gets, in the order of the activities, in as many queries however many these are. */
async function readableHits(
  db: Db,
  actor: Actor,
  homes: readonly ActivityRow[],
  hits: readonly Hit[],
  now: Date,
): Promise<ReadableHit[]> {
  const hitsOf = (activity: ActivityRow) => hits.filter(h => h.activityId === activity.id)
  const inTalk = homes.filter(a => !hooksOf(a.kind).findPages)
  const kindsWithPages = [...new Set(homes.map(a => a.kind).filter(kind => hooksOf(kind).findPages))]
  const [shaped, ...pages] = await Promise.all([
    readableIn(
      db,
      actor.enrolment,
      inTalk.map(activity => ({ activity, ids: hitsOf(activity).map(h => h.id) })),
      now,
    ),
    ...kindsWithPages.map(kind => {
      const ofKind = homes.filter(a => a.kind === kind)
      const ids = ofKind.flatMap(a => hitsOf(a).map(h => h.id))
      return hooksOf(kind).findPages!(db, actor, ofKind, ids, now)
    }),
  ])
  const pageOf = new Map(pages.flat().map(page => [page.id, page]))
  const viewOf = new Map(shaped.flatMap(({ views }) => views.map(view => [view.id, view] as const)))
  return homes.flatMap(activity =>
    hitsOf(activity).flatMap(({ id, activityId, text }): ReadableHit[] => {
      const page = pageOf.get(id)
      if (page) {
        const { pageId, groupId, title } = page
        return [{ id, activityId, page: { id: pageId, groupId }, title, author: activity.title, text }]
      }
      const view = viewOf.get(id)
      if (view?.view !== 'whole' || view.withdrawn) return []
      return [{ id, activityId, page: null, title: activity.title, author: view.author.name, text }]
    }),
  )
}

/** Words around the first one found. */
function excerptOf(text: string, words: string): string {
  const [first] = words.toLowerCase().split(/\s+/)
  const at = Math.max(0, text.toLowerCase().indexOf(first ?? ''))
  const from = Math.max(0, text.lastIndexOf(' ', Math.max(0, at - 40)))
  return `${from > 0 ? '… ' : ''}${text
    .slice(from, from + 120)
    .replace(/\s+/g, ' ')
    .trim()}${from + 120 < text.length ? ' …' : ''}`
}
