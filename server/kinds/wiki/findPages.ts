import type { ActivityActor } from '#server/access/seminar'
import { and, eq, inArray, isNull } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { pageComments, wikiPages } from '#server/database/schema'
import { mayReach, wikiAccess } from './wikiAccess'

interface FoundPage {
  readonly id: string
  readonly pageId: string
  readonly groupId: string | null
  readonly title: string
}

/** The pages that some versions or comments are of, each once, as far as their reader may read them. */
export async function readablePages(
  db: Db,
  actor: ActivityActor,
  ids: readonly string[],
  now: Date,
): Promise<Array<FoundPage>> {
  if (ids.length === 0) return []
  const [access, current, talked] = await Promise.all([
    wikiAccess(db, actor, now),
    db
      .select({ id: wikiPages.currentId, page: wikiPages })
      .from(wikiPages)
      .where(
        and(
          eq(wikiPages.activityId, actor.activity.id),
          isNull(wikiPages.removedAt),
          inArray(wikiPages.currentId, [...ids]),
        ),
      ),
    db
      .select({ id: pageComments.id, page: wikiPages })
      .from(pageComments)
      .innerJoin(wikiPages, eq(wikiPages.id, pageComments.pageId))
      .where(
        and(
          eq(wikiPages.activityId, actor.activity.id),
          isNull(wikiPages.removedAt),
          inArray(pageComments.id, [...ids]),
        ),
      ),
  ])
  const found = new Map<string, FoundPage>()
  for (const { id, page } of [...current, ...talked]) {
    if (!found.has(page.id) && mayReach(access, page) && access.reach(page.groupId).read)
      found.set(page.id, { id: id!, pageId: page.id, groupId: page.groupId, title: page.title })
  }
  return [...found.values()]
}
