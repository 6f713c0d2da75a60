import { and, asc, desc, eq, inArray, isNull, ne, or, sql } from 'drizzle-orm'
import {
  isStaff,
  type Actor,
  type ActivityActor,
  type ActivityRow,
  type Enrolment,
} from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, contributions, enrolments, wikiPages } from '#server/database/schema'
import { hooksOf, readableOf } from '#server/services/contributing'
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
  const found: Found['contributions'] = []
  for (const activity of homes.filter(a => known.has(a.id))) {
    if (found.length >= MOST) break
    const own = hits.filter(h => h.activityId === activity.id)
    found.push(...(await foundIn(db, { ...actor, activity }, own, words, now)))
  }
  return {
    activities: shownActivities.map(a => ({
      id: a.id,
      kind: a.kind,
      title: a.title,
      state: a.state,
      template: a.isTemplate,
    })),
    people: people.map(p => ({ id: p.id, name: p.name, role: p.role })),
    contributions: found.slice(0, MOST),
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

/** What of some hits in one activity its reader gets. */
async function foundIn(
  db: Db,
  actor: ActivityActor,
  hits: ReadonlyArray<{ readonly id: string; readonly text: string }>,
  words: string,
  now: Date,
): Promise<Found['contributions']> {
  const { activity } = actor
  const ids = hits.map(h => h.id)
  const textOf = (id: string) => excerptOf(hits.find(h => h.id === id)!.text, words)
  const { findPages } = hooksOf(activity.kind)
  if (findPages)
    return (await findPages(db, actor, ids, now)).map(page => ({
      id: page.id,
      activityId: activity.id,
      page: { id: page.pageId, groupId: page.groupId },
      title: page.title,
      author: activity.title,
      excerpt: textOf(page.id),
    }))
  const { views } = await readableOf(db, actor, ids, now)
  return hits.flatMap(({ id }) => {
    const view = views.find(v => v.id === id)
    if (view?.view !== 'whole' || view.withdrawn) return []
    return [
      {
        id,
        activityId: activity.id,
        page: null,
        title: activity.title,
        author: view.author.name,
        excerpt: textOf(id),
      },
    ]
  })
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
