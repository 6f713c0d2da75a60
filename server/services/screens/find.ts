import { and, asc, desc, eq, inArray, isNotNull, isNull, ne, or, sql } from 'drizzle-orm'
import { isMeantFor, isStaff, type Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { activities, contributions, enrolments, wikiPages } from '#server/database/schema'
import { hooksOf, shapedThread } from '#server/services/contributing'
import type { Found } from '#shared/planning/find'
import { takesPartIn } from '#server/services/planning'

const MOST = 8 // of each sort
const MOST_HITS = 60 // contributions looked at before their reader's view is asked

/**
 * Activities, people and contributions that hold the words. A contribution is found only through what its reader gets of
 * its activity anyway: nothing is learnt by searching that could not be read.
 */
export async function find(db: Db, actor: Actor, words: string, now: Date): Promise<Found> {
  const { seminar, enrolment } = actor
  const staff = isStaff(enrolment)
  const like = `%${words.replace(/[\\%_]/g, '\\$&')}%`
  const query = sql`websearch_to_tsquery('english', ${words})`
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
          inArray(
            contributions.activityId,
            db.select({ id: activities.id }).from(activities).where(takesPartIn(db, seminar.id)),
          ),
          ne(contributions.state, 'draft'),
          sql`to_tsvector('english', ${contributions.text}) @@ ${query}`,
          // of a wiki's page what it says now
          or(
            ne(contributions.type, 'pageVersion'),
            inArray(
              contributions.id,
              db
                .select({ id: wikiPages.currentId })
                .from(wikiPages)
                .where(and(isNull(wikiPages.removedAt), isNotNull(wikiPages.currentId))),
            ),
          ),
        ),
      )
      .orderBy(desc(sql`ts_rank(to_tsvector('english', ${contributions.text}), ${query})`))
      .limit(MOST_HITS),
  ])
  const mayKnow = async (a: typeof activities.$inferSelect) =>
    staff ||
    (a.state === 'published' && !a.isTemplate && a.opensAt <= now && (await isMeantFor(db, a, enrolment)))
  const shownActivities = []
  for (const a of activityRows)
    if (shownActivities.length < MOST && (await mayKnow(a))) shownActivities.push(a)
  const found: Found['contributions'] = []
  const homes =
    hits.length > 0
      ? await db
          .select()
          .from(activities)
          .where(inArray(activities.id, [...new Set(hits.map(h => h.activityId))]))
      : []
  for (const activity of homes) {
    if (found.length >= MOST || !(await mayKnow(activity))) continue
    const { findPages } = hooksOf(activity.kind)
    if (findPages) {
      for (const page of await findPages(
        db,
        { ...actor, activity },
        hits.filter(h => h.activityId === activity.id).map(h => h.id),
        now,
      )) {
        if (found.length < MOST)
          found.push({
            id: page.id,
            activityId: activity.id,
            page: { id: page.pageId, groupId: page.groupId },
            title: page.title,
            author: activity.title,
            excerpt: excerptOf(hits.find(h => h.id === page.id)!.text, words),
          })
      }
      continue
    }
    const thread = await shapedThread(db, { ...actor, activity }, now, false)
    for (const hit of hits.filter(h => h.activityId === activity.id)) {
      const view = thread.contributions.find(c => c.id === hit.id)
      if (view?.view !== 'whole' || view.withdrawn || found.length >= MOST) continue
      found.push({
        id: hit.id,
        activityId: activity.id,
        page: null,
        title: activity.title,
        author: view.author.name,
        excerpt: excerptOf(hit.text, words),
      })
    }
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
    contributions: found,
  }
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
