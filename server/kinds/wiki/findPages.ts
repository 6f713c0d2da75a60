import { and, eq, inArray, isNull } from 'drizzle-orm'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { pageComments, wikiPages } from '#server/database/schema'
import type { FoundPage } from '#server/services/contributing'
import { mayReach, wikiAccessOfEach } from './wikiAccess'

/** The pages that some versions or comments are of, each once, as far as their reader may read them. */
export async function readablePages(
  db: Db,
  actor: Actor,
  activities: readonly ActivityRow[],
  ids: readonly string[],
  now: Date,
): Promise<FoundPage[]> {
  if (ids.length === 0) return []
  const isThere = and(
    inArray(
      wikiPages.activityId,
      activities.map(a => a.id),
    ),
    isNull(wikiPages.removedAt),
  )
  const [accesses, current, talked] = await Promise.all([
    wikiAccessOfEach(db, actor, activities, now),
    db
      .select({ id: wikiPages.currentId, page: wikiPages })
      .from(wikiPages)
      .where(and(isThere, inArray(wikiPages.currentId, [...ids]))),
    db
      .select({ id: pageComments.id, page: wikiPages })
      .from(pageComments)
      .innerJoin(wikiPages, eq(wikiPages.id, pageComments.pageId))
      .where(and(isThere, inArray(pageComments.id, [...ids]))),
  ])
  const found = new Map<string, FoundPage>()
  for (const { id, page } of [...current, ...talked]) {
    const access = accesses.get(page.activityId)!
    if (found.has(page.id) || !mayReach(access, page) || !access.reach(page.groupId).read) continue
    const { activityId, groupId, title } = page
    found.set(page.id, { activityId, id: id!, pageId: page.id, groupId, title })
  }
  return [...found.values()]
}
