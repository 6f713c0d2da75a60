import { and, eq, isNull, sql } from 'drizzle-orm'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { contributions, visits } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import type { DraftView, DraftWrite } from '#shared/contributing/thread'
import { renderDoc } from './renderDoc'
import { requirePlace } from './writePlace'

type ActorAt = Actor & { readonly activity: ActivityRow }

/** The writer's draft at one place. Until the transaction ends nobody else writes there, also when there is none yet. */
export async function draftAt(tx: Db, actor: ActorAt, parentId: string | null) {
  await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`${actor.enrolment.id}:${actor.activity.id}:${parentId ?? ''}`}, 1))`)
  const [draft] = await tx.select().from(contributions).where(and(
    eq(contributions.activityId, actor.activity.id), eq(contributions.authorId, actor.enrolment.id), eq(contributions.state, 'draft'),
    parentId ? eq(contributions.parentId, parentId) : isNull(contributions.parentId),
  )).for('update')
  return draft
}

/** Saves what is being written. A version saved elsewhere meanwhile is not overwritten: both come back to the writer. */
export function saveDraft(db: Database, actor: ActorAt, write: DraftWrite, now: Date): Promise<DraftView> {
  const { doc, html, text, words } = renderDoc(write.doc)
  return db.transaction(async (tx) => {
    const current = await draftAt(tx, actor, write.parentId)
    if ((current?.version ?? null) !== write.baseVersion && current && current.text !== text) {
      throw new Problem(409, 'changedMeanwhile', 'This draft was changed in another window. Both texts are here; keep the one you want.', { theirs: draftView(current) })
    }
    const place = await requirePlace(tx, actor, write.parentId, write.takesUp, now)
    const columns = { type: place.type, detail: place.detail, doc, html, text, words, savedAt: now }
    const [stored] = current
      ? await tx.update(contributions).set({ ...columns, version: current.version + 1 }).where(eq(contributions.id, current.id)).returning()
      : await tx.insert(contributions).values({ ...columns, state: 'draft', seminarId: actor.seminar.id, activityId: actor.activity.id, authorId: actor.enrolment.id, parentId: write.parentId, madeAt: now }).returning()
    return draftView(stored!)
  })
}

export async function discardDraft(db: Database, actor: ActorAt, parentId: string | null): Promise<{ done: boolean }> {
  await db.delete(contributions).where(and(
    eq(contributions.activityId, actor.activity.id), eq(contributions.authorId, actor.enrolment.id), eq(contributions.state, 'draft'),
    parentId ? eq(contributions.parentId, parentId) : isNull(contributions.parentId),
  ))
  return { done: true }
}

/** Notes that the reader has seen the activity up to now. */
export async function recordVisit(db: Database, actor: ActorAt, now: Date): Promise<{ done: boolean }> {
  await db.insert(visits).values({ seminarId: actor.seminar.id, activityId: actor.activity.id, enrolmentId: actor.enrolment.id, seenUntil: now })
    .onConflictDoUpdate({ target: [visits.activityId, visits.enrolmentId], set: { seenUntil: now } })
  return { done: true }
}

export function draftView(d: typeof contributions.$inferSelect): DraftView {
  return {
    id: d.id, parentId: d.parentId, doc: d.doc, words: d.words, version: d.version, savedAt: d.savedAt.toISOString(),
    takesUp: d.detail.takesUp ? { contributionId: d.detail.takesUp.contributionId, exact: d.detail.takesUp.exact } : null,
  }
}
