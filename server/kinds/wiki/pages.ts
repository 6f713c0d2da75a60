import { and, eq, inArray, sql } from 'drizzle-orm'
import { titleKey } from '#core/kinds/wiki/wikiSettings'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { lock } from '#server/database/locks'
import { auditTrail, enrolments, pageWriters, wikiPages } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { announce } from '#server/services/contributing'
import type { PageMake, PagePatch } from '#shared/kinds/wiki/wiki'
import {
  pagesOf,
  requireMayWrite,
  requirePage,
  wikiSpaceOf,
  wikiAccess,
  type PageRow,
  type WikiSpace,
} from './wikiAccess'

/** Makes a page, empty as yet. Made again with the same id, or under a title that is there, it is the one that is there. */
export async function makePage(db: Database, actor: ActivityActor, make: PageMake, now: Date) {
  const access = await wikiAccess(db, actor, now)
  const reach = access.reach(make.groupId)
  if (!reach.read) throw nothingHere()
  requireMayWrite(access, reach, actor)
  return db.transaction(async tx => {
    const page = await pageOfTitle(tx, actor, make, wikiSpaceOf(access, make.groupId), now)
    await announce(tx, { activityId: actor.activity.id, id: page.id })
    return { id: page.id }
  })
}

/** The page of a title, made at the end of the tree if there is none. */
export async function pageOfTitle(
  tx: Db,
  { activity, enrolment }: ActivityActor,
  make: PageMake,
  space: WikiSpace,
  now: Date,
): Promise<PageRow> {
  const key = titleKey(make.title)
  const pages = await pagesOf(tx, activity.id, space)
  const there = pages.find(p => p.id === make.id) ?? pages.find(p => p.titleKey === key)
  if (there) return there
  if (make.parentId && !pages.some(p => p.id === make.parentId))
    throw refusedField('parentId', 'gone', 'The page it was to stand under is not there any more.')
  const [made] = await tx
    .insert(wikiPages)
    .values({
      id: make.id,
      seminarId: activity.seminarId,
      activityId: activity.id,
      ...space,
      title: make.title,
      titleKey: key,
      parentId: make.parentId,
      position: Math.max(-1, ...pages.map(p => p.position)) + 1,
      madeBy: enrolment.id,
      madeAt: now,
    })
    .onConflictDoNothing()
    .returning()
  // somebody else made it at the same instant
  const page = made ?? (await pagesOf(tx, activity.id, space)).find(p => p.titleKey === key)
  if (!page)
    throw refusedField(
      'title',
      'taken',
      'This page could not be made. Load the wiki again and try once more.',
    )
  return page
}

/** Until the transaction ends nobody else moves or renames pages there: two moves at once make no circle. */
const lockTree = (tx: Db, activityId: string) => lock(tx, 'pages', activityId)

/** Renames a page, or gives it another place in the tree. Links to its old name still arrive. */
export async function changePage(
  db: Database,
  actor: ActivityActor,
  pageId: string,
  patch: PagePatch,
  now: Date,
) {
  const { access, reach, page } = await requirePage(db, actor, pageId, now)
  requireMayWrite(access, reach, actor)
  return db.transaction(async tx => {
    await lockTree(tx, page.activityId)
    const pages = await pagesOf(tx, page.activityId, page)
    if (patch.title !== undefined && patch.title !== page.title) {
      const key = titleKey(patch.title)
      if (pages.some(p => p.id !== pageId && p.titleKey === key))
        throw refusedField('title', 'taken', 'There is a page of this title already.')
      await tx
        .update(wikiPages)
        .set({
          title: patch.title,
          titleKey: key,
          formerKeys: [...new Set([...page.formerKeys, page.titleKey])].filter(k => k !== key),
        })
        .where(eq(wikiPages.id, pageId))
    }
    if (patch.place) await movePage(tx, pages, page, patch.place)
    await announce(tx, { activityId: page.activityId, id: pageId })
    return { done: true }
  })
}

async function movePage(
  tx: Db,
  pages: readonly PageRow[],
  page: PageRow,
  { parentId, beforeId }: NonNullable<PagePatch['place']>,
) {
  for (let up = parentId; up; up = pages.find(p => p.id === up)?.parentId ?? null) {
    if (up === page.id) throw refusedField('place', 'belowItself', 'A page cannot stand below itself.')
  }
  if (parentId && !pages.some(p => p.id === parentId))
    throw refusedField('place', 'gone', 'The page it was to stand under is not there any more.')
  const rest = pages.filter(p => p.id !== page.id)
  const at = beforeId ? rest.findIndex(p => p.id === beforeId) : -1
  const order = at < 0 ? [...rest, page] : [...rest.slice(0, at), page, ...rest.slice(at)]
  await tx.update(wikiPages).set({ parentId }).where(eq(wikiPages.id, page.id))
  const moved = order.map(({ id }, position) => ({ id, position }))
  await tx.execute(sql`
    update wiki_pages p set position = v.position
    from jsonb_to_recordset(${JSON.stringify(moved)}::jsonb) as v(id uuid, position integer)
    where p.id = v.id and p.position <> v.position`)
}

/** Claims a page, or releases it. Claiming keeps nobody from writing; it says who looks after it. */
export async function claimPage(
  db: Database,
  actor: ActivityActor,
  pageId: string,
  claimed: boolean,
  now: Date,
) {
  const { access, reach } = await requirePage(db, actor, pageId, now)
  requireMayWrite(access, reach, actor)
  if (claimed && isStaff(actor.enrolment))
    throw refusedField('claimed', 'staff', 'Pages are claimed by those who write the wiki.')
  return db.transaction(async tx => {
    const [page] = await tx.select().from(wikiPages).where(eq(wikiPages.id, pageId)).for('update')
    const own = page!.claimedBy === actor.enrolment.id
    if (claimed && page!.claimedBy && !own)
      throw new Problem(409, 'claimed', 'Somebody claimed this page a moment ago. Ask them, or take another.')
    if (!claimed && page!.claimedBy && !own && !isStaff(actor.enrolment))
      throw new Problem(403, 'notYours', 'Only whoever claimed a page, or staff, can release it.')
    await tx
      .update(wikiPages)
      .set({ claimedBy: claimed ? actor.enrolment.id : null })
      .where(eq(wikiPages.id, pageId))
    await announce(tx, { activityId: page!.activityId, id: pageId })
    return { done: true }
  })
}

/** Takes a page out of the wiki, or puts it back; nothing of it is lost. Pages below it move up. */
export async function removePage(
  db: Database,
  actor: ActivityActor,
  pageId: string,
  removed: boolean,
  now: Date,
) {
  const { access, reach, page } = await requirePage(db, actor, pageId, now, true)
  requireMayWrite(access, reach, actor)
  return db.transaction(async tx => {
    await lockTree(tx, page.activityId)
    const pages = await pagesOf(tx, page.activityId, page)
    if (!removed && pages.some(p => p.titleKey === page.titleKey))
      throw refusedField('title', 'taken', 'There is a page of this title again. Rename that one first.')
    if (removed) {
      const below = pages.filter(p => p.parentId === pageId).map(p => p.id)
      if (below.length > 0)
        await tx.update(wikiPages).set({ parentId: page.parentId }).where(inArray(wikiPages.id, below))
    }
    const parentThere = page.parentId !== null && pages.some(p => p.id === page.parentId)
    await tx
      .update(wikiPages)
      .set({ removedAt: removed ? now : null, ...(!removed && !parentThere && { parentId: null }) })
      .where(eq(wikiPages.id, pageId))
    await tx.insert(auditTrail).values({
      seminarId: page.seminarId,
      actorId: actor.enrolment.id,
      at: now,
      act: removed ? 'pageRemoved' : 'pageRestored',
      subjectId: pageId,
    })
    await announce(tx, { activityId: page.activityId, id: pageId })
    return { done: true }
  })
}

/** Says that somebody has a page open for writing, or has put it away. */
export async function setWriting(
  db: Database,
  actor: ActivityActor,
  pageId: string,
  writing: boolean,
  now: Date,
) {
  const { access, reach, page } = await requirePage(db, actor, pageId, now)
  if (writing) requireMayWrite(access, reach, actor)
  return db.transaction(async tx => {
    const own = and(eq(pageWriters.pageId, pageId), eq(pageWriters.enrolmentId, actor.enrolment.id))
    const [known] = await tx
      .select({ seenAt: pageWriters.seenAt })
      .from(pageWriters)
      .innerJoin(enrolments, eq(enrolments.id, pageWriters.enrolmentId))
      .where(own)
    if (writing)
      await tx
        .insert(pageWriters)
        .values({ pageId, enrolmentId: actor.enrolment.id, seminarId: page.seminarId, seenAt: now })
        .onConflictDoUpdate({ target: [pageWriters.pageId, pageWriters.enrolmentId], set: { seenAt: now } })
    else await tx.delete(pageWriters).where(own)
    // those who look on are told when it changes, not at every sign of life
    if (writing !== (known !== undefined && isWriting(known.seenAt, now)))
      await announce(tx, { activityId: page.activityId, id: pageId })
    return { done: true }
  })
}

/** Somebody who has given no sign for so long is not writing any more. */
const SILENT = 90_000 // milliseconds
export const isWriting = (seenAt: Date, now: Date): boolean => now.getTime() - seenAt.getTime() < SILENT
