import { and, eq } from 'drizzle-orm'
import { isStaff, nothingHere, notYours, type Actor, type ActivityRow } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { auditTrail, contributionRevisions, contributions, nods } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { once } from '#server/services/receipt'
import type { EditWrite, NodWrite, PostWrite } from '#shared/contributing/thread'
import { draftAt } from './draft'
import { renderDoc } from './renderDoc'
import { changeableUntil } from './shapeForReader'
import { localTime, requirePlace } from './writePlace'

export type ActorAt = Actor & { readonly activity: ActivityRow }
type Contribution = typeof contributions.$inferSelect

/** Shows a contribution. A draft begun at the same place becomes it: one row, one life. */
export function postContribution(db: Database, actor: ActorAt, write: PostWrite, now: Date) {
  const rendered = renderDoc(write.doc)
  return once(db, actor.enrolment, write.key, async (tx) => {
    if (rendered.words === 0) throw refusedField('doc', 'empty', 'There are no words of your own here yet. Write a line or two first.')
    const place = await requirePlace(tx, actor, write.parentId, write.takesUp, now, true)
    const shown = { type: place.type, state: 'shown' as const, ...columnsOf(rendered), detail: place.detail, savedAt: now, shownAt: now }
    const draft = await draftAt(tx, actor, write.parentId)
    const [stored] = draft
      ? await tx.update(contributions).set({ ...shown, version: draft.version + 1 }).where(eq(contributions.id, draft.id)).returning()
      : await tx.insert(contributions).values({ seminarId: actor.seminar.id, activityId: actor.activity.id, authorId: actor.enrolment.id, parentId: write.parentId, madeAt: now, ...shown }).returning()
    return { id: stored!.id, shownAt: now.toISOString() }
  })
}

/** Changes one's own text within the window; the earlier text is kept as a revision. */
export function editContribution(db: Database, actor: ActorAt & { readonly contribution: Contribution }, write: EditWrite, now: Date) {
  const rendered = renderDoc(write.doc)
  return once(db, actor.enrolment, write.key, async (tx) => {
    const current = await requireOwn(tx, actor, now, 'changed')
    if (current.state !== 'shown') throw refusedField('doc', 'withdrawn', 'This post is withdrawn. Put it back first, then change it.')
    if (current.version !== write.baseVersion) {
      throw new Problem(409, 'changedMeanwhile', 'This post was changed somewhere else meanwhile. Both texts are here; keep the one you want.', { theirs: { doc: current.doc, version: current.version } })
    }
    if (rendered.words === 0) throw refusedField('doc', 'empty', 'There are no words left. To take the post back, withdraw it instead.')
    await tx.insert(contributionRevisions).values({ ...revisionOf(current), replacedAt: now })
    await tx.update(contributions).set({ ...columnsOf(rendered), savedAt: now, editedAt: now, version: current.version + 1 }).where(eq(contributions.id, current.id))
    return { version: current.version + 1 }
  })
}

/** Withdraws or puts back. Authors do so within their window; staff may withdraw anything, which is written down. */
export function setWithdrawn(db: Database, actor: ActorAt & { readonly contribution: Contribution }, withdrawn: boolean, now: Date) {
  return db.transaction(async (tx) => {
    const current = await requireOwn(tx, actor, now, withdrawn ? 'withdrawn' : 'put back')
    const wanted = withdrawn ? 'withdrawn' as const : 'shown' as const
    if (current.state === wanted) return { done: true }
    if (current.state !== 'shown' && current.state !== 'withdrawn') throw nothingHere()
    await tx.update(contributions).set({ state: wanted, withdrawnAt: withdrawn ? now : null }).where(eq(contributions.id, current.id))
    await tx.insert(auditTrail).values({ seminarId: current.seminarId, actorId: actor.enrolment.id, at: now, act: withdrawn ? 'withdrew a contribution' : 'put a contribution back', subjectId: current.id })
    return { done: true }
  })
}

/** Nods, or takes a nod back. Nobody nods at their own words. */
export async function setNod(db: Database, actor: ActorAt & { readonly contribution: Contribution }, write: NodWrite, now: Date) {
  const { contribution, enrolment } = actor
  if (contribution.authorId === enrolment.id) throw new Problem(422, 'ownNod', 'This post is your own.')
  return db.transaction(async (tx) => {
    await requirePlace(tx, actor, contribution.id, null, now)
    if (write.nodded) await tx.insert(nods).values({ seminarId: contribution.seminarId, contributionId: contribution.id, enrolmentId: enrolment.id }).onConflictDoNothing()
    else await tx.delete(nods).where(and(eq(nods.contributionId, contribution.id), eq(nods.enrolmentId, enrolment.id)))
    const count = await tx.$count(nods, eq(nods.contributionId, contribution.id))
    return { nods: count, nodded: write.nodded }
  })
}

/** The row, locked, if the actor may change it now. What is not the actor's to see is answered as if it were not there. */
async function requireOwn(tx: Db, actor: ActorAt & { readonly contribution: Contribution }, now: Date, verb: string): Promise<Contribution> {
  const [current] = await tx.select().from(contributions).where(eq(contributions.id, actor.contribution.id)).for('update')
  const isOwn = current?.authorId === actor.enrolment.id
  if (!current || current.state === 'draft' || current.state === 'scheduled') throw nothingHere()
  if (!isOwn && !(isStaff(actor.enrolment) && verb !== 'changed')) throw notYours('Only its author can do this.')
  const until = changeableUntil(actor.activity, actor.enrolment, current.shownAt ?? now)
  if (now > until) throw refusedField('doc', 'tooLate', `A post can be ${verb} for ${actor.activity.settings.editMinutes} minutes, here until ${localTime(until, actor.seminar.timeZone)}. Ask the instructor, or add a reply.`)
  return current
}

const columnsOf = ({ doc, html, text, words }: ReturnType<typeof renderDoc>) => ({ doc, html, text, words })
const revisionOf = (c: Contribution) => ({ seminarId: c.seminarId, contributionId: c.id, version: c.version, doc: c.doc, html: c.html, text: c.text, words: c.words })

