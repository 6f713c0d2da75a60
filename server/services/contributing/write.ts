import { and, eq, lte } from 'drizzle-orm'
import { v7 } from 'uuid'
import { talkOf } from '#core/contributing/talkSettings'
import { isStaff, nothingHere, notYours, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, allocations, contributionRevisions, contributions } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { announce } from './announce'
import { withIdempotency } from '#server/services/idempotency'
import type { EditWrite, PostWrite } from '#shared/contributing/thread'
import { attachFiles } from './attach'
import { countsFrom, handInDue, requireInTime, wayOf } from './review/handIn'
import { draftAt } from './draft'
import { nextSeq } from './numbering'
import { requireTerm } from './lexicon/requireTerm'
import { renderDoc } from './renderDoc'
import { changeableUntil } from './shapeForReader'
import { localTime, requirePlace } from './writePlace'

export type Contribution = typeof contributions.$inferSelect

/** Shows a contribution, or hands it in where staff see it first or it waits for its time. A draft begun at the same place becomes it: one row, one life. */
export function postContribution(db: Database, actor: ActivityActor, write: PostWrite, now: Date) {
  const rendered = renderDoc(write.doc)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const handsIn = actor.activity.kind === 'review'
    if (rendered.words === 0 && !handsIn)
      throw refusedField(
        'doc',
        'empty',
        'There are no words of your own here yet. Write a line or two first.',
      )
    const place = await requirePlace(tx, actor, write, now, true)
    const draft = await draftAt(tx, actor, write)
    const id = draft?.id ?? v7()
    const at = handsIn ? await countsFrom(tx, write.fileIds, now) : now
    if (handsIn) await requireInTime(tx, actor, at)
    const detail = handsIn
      ? { ...place.detail, handIn: { ...place.detail.handIn, way: wayOf(actor, rendered, write.fileIds) } }
      : place.detail
    const state = stateOf(actor, write, now)
    const columns = {
      type: place.type,
      state,
      detail,
      promptId: place.promptId,
      openerId: place.openerId,
      threadId: place.threadId ?? id,
      ...columnsOf(rendered),
      savedAt: now,
      showAt: state === 'scheduled' ? new Date(write.showAt!) : null,
      shownAt: state === 'scheduled' ? null : at, // handed in now, also where it waits for approval: waiting does not make it late
      seq: state === 'shown' ? await nextSeq(tx, actor.activity.id) : null,
    }
    if (draft)
      await tx
        .update(contributions)
        .set({ ...columns, version: draft.version + 1 })
        .where(eq(contributions.id, id))
    else
      await tx.insert(contributions).values({
        id,
        slot: write.slot,
        seminarId: actor.seminar.id,
        activityId: actor.activity.id,
        authorId: actor.enrolment.id,
        parentId: write.parentId,
        madeAt: now,
        ...columns,
      })
    await attachFiles(tx, actor, id, write.fileIds)
    await announce(tx, { activityId: actor.activity.id, id })
    return { id, shownAt: (columns.showAt ?? at).toISOString(), state }
  })
}

function stateOf(
  { activity, enrolment }: ActivityActor,
  write: PostWrite,
  now: Date,
): 'shown' | 'awaitingApproval' | 'scheduled' {
  if (write.showAt && new Date(write.showAt) > now) {
    if (write.parentId !== null || activity.kind !== 'blog')
      throw refusedField(
        'showAt',
        'notTimed',
        'Only entries of a blog can wait for a time. Post it now, or keep it as a draft.',
      )
    return 'scheduled'
  }
  return talkOf(activity.settings).approval && !isStaff(enrolment) ? 'awaitingApproval' : 'shown'
}

/** Shows the timed entries whose time has come. @returns how many */
export async function showDue(db: Database, now: Date): Promise<number> {
  return db.transaction(async tx => {
    const due = await tx
      .select({ row: contributions, activity: activities })
      .from(contributions)
      .innerJoin(activities, eq(activities.id, contributions.activityId))
      .where(and(eq(contributions.state, 'scheduled'), lte(contributions.showAt, now)))
      .orderBy(contributions.showAt, contributions.id)
      .for('update', { of: contributions, skipLocked: true })
    for (const { row, activity } of due) {
      const waits = talkOf(activity.settings).approval
      await tx
        .update(contributions)
        .set({
          state: waits ? 'awaitingApproval' : 'shown',
          shownAt: row.showAt,
          seq: waits ? null : await nextSeq(tx, row.activityId),
        })
        .where(eq(contributions.id, row.id))
      await announce(tx, { activityId: row.activityId, id: row.id })
    }
    return due.length
  })
}

/** Changes one's own text within the window; the earlier text is kept as a revision. */
export function editContribution(
  db: Database,
  actor: ActivityActor & { readonly contribution: Contribution },
  write: EditWrite,
  now: Date,
) {
  const rendered = renderDoc(write.doc)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const current = await requireOwn(tx, actor, now, 'changed')
    if (current.state === 'withdrawn')
      throw refusedField('doc', 'withdrawn', 'This post is withdrawn. Put it back first, then change it.')
    if (talkOf(actor.activity.settings).approval && current.state === 'shown' && !isStaff(actor.enrolment))
      throw refusedField(
        'doc',
        'approved',
        'This was approved as it stands, so it stays. Withdraw it and post it anew, or add a reply.',
      )
    if (current.version !== write.baseVersion) {
      throw new Problem(
        409,
        'changedMeanwhile',
        'This post was changed somewhere else meanwhile. Both texts are here; keep the one you want.',
        { theirs: { doc: current.doc, version: current.version } },
      )
    }
    if (rendered.words === 0)
      throw refusedField(
        'doc',
        'empty',
        'There are no words left. To take the post back, withdraw it instead.',
      )
    await tx.insert(contributionRevisions).values({ ...revisionOf(current), replacedAt: now })
    const term =
      actor.activity.kind === 'lexicon' && current.type === 'term' && write.term
        ? await requireTerm(tx, actor, write.term, current.id)
        : null
    const findDetail = () => {
      if (term) return { ...current.detail, ...term }
      if (write.title === undefined) return current.detail
      return { ...current.detail, title: write.title ?? undefined }
    }
    const detail = findDetail()
    await tx
      .update(contributions)
      .set({
        ...columnsOf(rendered),
        detail,
        sentBack: null,
        savedAt: now,
        editedAt: current.state === 'shown' ? now : null,
        version: current.version + 1,
      })
      .where(eq(contributions.id, current.id))
    await announce(tx, { activityId: current.activityId, id: current.id })
    return { version: current.version + 1 }
  })
}

/** One's own text as the editor has it, to be changed. */
export async function ownText({
  contribution,
  enrolment,
}: ActivityActor & { readonly contribution: Contribution }) {
  if (contribution.authorId !== enrolment.id) throw nothingHere()
  const { term } = contribution.detail
  return {
    doc: contribution.doc,
    title: contribution.detail.title ?? null,
    term: term ? { ...term, forms: [...term.forms] } : null,
    version: contribution.version,
  }
}

/** Earlier texts of a contribution, newest first: staff see what was changed. */
export async function revisionsOf(db: Db, contribution: Contribution) {
  const rows = await db
    .select()
    .from(contributionRevisions)
    .where(eq(contributionRevisions.contributionId, contribution.id))
    .orderBy(contributionRevisions.version)
  return {
    revisions: rows.reverse().map(r => ({
      version: r.version,
      html: r.html,
      words: r.words,
      replacedAt: r.replacedAt.toISOString(),
    })),
  }
}

/** The row, locked, if the actor may change it now. What is not the actor's to see is answered as if it were not there. */
export async function requireOwn(
  tx: Db,
  actor: ActivityActor & { readonly contribution: Contribution },
  now: Date,
  verb: 'changed' | 'withdrawn' | 'put back',
): Promise<Contribution> {
  const [current] = await tx
    .select()
    .from(contributions)
    .where(eq(contributions.id, actor.contribution.id))
    .for('update')
  const isOwn = current?.authorId === actor.enrolment.id
  if (!current || current.state === 'draft') throw nothingHere()
  // a history has no holes: what a version did is undone by the next
  if (current.type === 'pageVersion')
    throw refusedField(
      'doc',
      'version',
      'A version stays in the history of its page. Bring an earlier one back, or save another.',
    )
  if (!isOwn && !(isStaff(actor.enrolment) && verb !== 'changed' && current.state !== 'scheduled'))
    throw notYours('Only its author can do this.')
  if (actor.activity.kind === 'review' && isOwn && !isStaff(actor.enrolment))
    return handedIn(tx, actor, current, verb, now)
  const minutes =
    verb === 'changed' ? actor.activity.settings.editMinutes : talkOf(actor.activity.settings).withdrawMinutes
  const until = changeableUntil(actor.enrolment, current.shownAt ?? now, minutes)
  if (now > until && current.state !== 'awaitingApproval')
    throw refusedField(
      'doc',
      'tooLate',
      `A post can be ${verb} for ${minutes} minutes, here until ${localTime(until, actor.seminar.timeZone)}. Ask the instructor, or add a reply.`,
    )
  return current
}

const columnsOf = ({ doc, html, text, words, sources }: ReturnType<typeof renderDoc>) => ({
  doc,
  html,
  text,
  words,
  sources,
})
const revisionOf = (c: Contribution) => ({
  seminarId: c.seminarId,
  contributionId: c.id,
  version: c.version,
  doc: c.doc,
  html: c.html,
  text: c.text,
  words: c.words,
})

/** Handed-in work is its author's to change until their hand-in ends, and not once somebody reviews it. */
async function handedIn(
  tx: Db,
  actor: ActivityActor,
  current: Contribution,
  verb: string,
  now: Date,
): Promise<Contribution> {
  if (current.type !== 'entry') throw nothingHere()
  const due = await handInDue(tx, actor)
  if (due && now > due)
    throw refusedField(
      'doc',
      'tooLate',
      `Work can be ${verb} until hand-in ends, here until ${localTime(due, actor.seminar.timeZone)}. Write to your instructor if something is wrong with it.`,
    )
  if ((await tx.$count(allocations, eq(allocations.entryId, current.id))) > 0)
    throw refusedField('doc', 'dealt', 'This is dealt out to readers already, so it stays as they have it.')
  return current
}
