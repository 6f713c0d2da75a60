import { eq } from 'drizzle-orm'
import type { H3Event } from 'h3'
import type { Db } from '#server/database/client'
import { pageVersions, wikiPages } from '#server/database/schema'
import { mayReach, wikiAccess } from '#server/kinds/wiki/wikiAccess'
import {
  nothingHere,
  requireActivity,
  requireContributor,
  type Actor,
  type ActivityRow,
} from '#server/access/seminar'
import { requirePerson } from '#server/access/session'

/** The activity a page is in, to somebody who may know of it; whether they may read this page, its wiki's policy says in the service. */
export async function requirePageReader(
  event: H3Event,
  db: Db,
  pageId: string,
  now: Date,
): Promise<Actor & { readonly activity: ActivityRow }> {
  return requireActivity(event, db, await activityOf(event, db, pageId), now)
}

/** The same for somebody who may add to it: not an observer, and not once the seminar is archived. */
export async function requirePageWriter(
  event: H3Event,
  db: Db,
  pageId: string,
  now: Date,
): Promise<Actor & { readonly activity: ActivityRow }> {
  return requireContributor(event, db, await activityOf(event, db, pageId), now)
}

async function activityOf(event: H3Event, db: Db, pageId: string): Promise<string> {
  await requirePerson(event)
  const [page] = await db
    .select({ activityId: wikiPages.activityId })
    .from(wikiPages)
    .where(eq(wikiPages.id, pageId))
  if (!page) throw nothingHere()
  return page.activityId
}

/** Whether what came with a version of a page is open to somebody: whoever may read the page may see its pictures. */
export async function mayReadVersion(
  db: Db,
  actor: Actor & { readonly activity: ActivityRow },
  versionId: string,
  now: Date,
): Promise<boolean> {
  const [page] = await db
    .select({ groupId: wikiPages.groupId, trialBy: wikiPages.trialBy })
    .from(pageVersions)
    .innerJoin(wikiPages, eq(wikiPages.id, pageVersions.pageId))
    .where(eq(pageVersions.id, versionId))
  if (!page) return false
  const access = await wikiAccess(db, actor, now)
  return mayReach(access, page) && access.reach(page.groupId).read
}
