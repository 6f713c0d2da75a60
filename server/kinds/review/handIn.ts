import type { ContributionDetails } from '#core/kinds/contributionDetail'
import { and, eq, inArray, max } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import type { SubmissionMethod } from '#core/kinds/review/reviewSettings'
import { ownDueAt } from '#core/planning/schedule'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { contributions, enrolments, extensions, files, phases } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { announce, nextSeq } from '#server/services/contributing'
import { renderDoc } from '#server/richText/renderDoc'
import { withIdempotency } from '#server/services/idempotency'
import { groupsOf } from '#server/services/planning'
import { loadPeerReview, requireReview } from './peerReview'

const UPLOAD_COUNTS_FOR = 2 * 60_000 // milliseconds after an upload's end in which handing in still counts by its start

/** A place to hand work in: once for each person, or for each group, and not after the end where late work is refused. */
export async function handInDetail(db: Db, actor: ActivityActor): Promise<ContributionDetails['entry']> {
  const { activity, enrolment } = actor
  const settings = requireReview(activity)
  if (isStaff(enrolment))
    throw refusedField(
      'doc',
      'staff',
      'Work is handed in by students. A sample to practise on is put up on the desk of this peer review.',
    )
  if (settings.subject === 'teammates')
    throw refusedField('doc', 'noHandIn', 'Nothing is handed in here: teammates review each other.')
  const groups = settings.byGroup ? await groupsOf(db, activity) : []
  const group = groups.find(g => g.memberIds.includes(enrolment.id))
  if (settings.byGroup && !group)
    throw refusedField(
      'doc',
      'noGroup',
      'Work is handed in by groups here, and you are in none yet. Write to your instructor; your text is kept.',
    )
  const [there] = await db
    .select({ id: contributions.id, authorId: contributions.authorId, name: enrolments.givenName })
    .from(contributions)
    .innerJoin(enrolments, eq(enrolments.id, contributions.authorId))
    .where(
      and(
        eq(contributions.activityId, activity.id),
        eq(contributions.type, 'entry'),
        eq(contributions.state, 'shown'),
        inArray(contributions.authorId, group ? [...group.memberIds] : [enrolment.id]),
      ),
    )
  if (there)
    throw refusedField(
      'doc',
      'once',
      there.authorId === enrolment.id
        ? 'Your work is in already. You can edit it until hand-in ends, or withdraw it and hand in again.'
        : `${there.name} has handed in for your group already. They can edit it, or withdraw it.`,
    )
  return group ? { handIn: { way: 'text', groupId: group.id } } : { handIn: { way: 'text' } }
}

/** How work came in, and whether that is taken here. */
export function submissionMethodOf(
  actor: ActivityActor,
  work: { readonly words: number; readonly sources: number },
  fileIds: readonly string[],
): SubmissionMethod {
  const { ways } = requireReview(actor.activity)
  const findMethod = () => {
    if (fileIds.length > 0 && (work.words < 60 || !ways.includes('text'))) return 'file'
    if (work.sources > 0 && work.words < 60 && ways.includes('link')) return 'link'
    return 'text'
  }
  const way: SubmissionMethod = findMethod()
  const taken = { text: 'as text written here', file: 'as a file', link: 'as a link', paper: 'on paper' }
  const sentence = `Here work is handed in ${ways.map(w => taken[w]).join(' or ')}.`
  if (fileIds.length > 0 && !ways.includes('file'))
    throw refusedField('fileIds', 'way', `${sentence} Remove the file, and hand in without it.`)
  if (!ways.includes(way)) throw refusedField('doc', 'way', sentence)
  if (way === 'text' && work.words === 0)
    throw refusedField('doc', 'empty', `There is nothing to hand in yet. ${sentence}`)
  return way
}

/**
 * When a hand-in counts: now, or, where a file came with it, when that file's upload began, if handing in followed the
 * upload at once. A slow line costs nobody their last second.
 */
export async function countsFrom(db: Db, fileIds: readonly string[], now: Date): Promise<Date> {
  if (fileIds.length === 0) return now
  const [last] = await db
    .select({ begunAt: files.begunAt, endedAt: files.madeAt })
    .from(files)
    .where(
      and(
        inArray(files.id, [...fileIds]),
        eq(
          files.madeAt,
          db
            .select({ at: max(files.madeAt) })
            .from(files)
            .where(inArray(files.id, [...fileIds])),
        ),
      ),
    )
  if (!last?.begunAt || now.getTime() - last.endedAt.getTime() > UPLOAD_COUNTS_FOR) return now
  return last.begunAt < now ? last.begunAt : now
}

/** Refuses work after the end where late work is not taken. */
export async function requireInTime(db: Db, actor: ActivityActor, at: Date): Promise<void> {
  if (requireReview(actor.activity).late === 'taken') return
  const due = await handInDue(db, actor)
  if (due && at > due)
    throw refusedField(
      'doc',
      'over',
      'Hand-in has ended, and late work is not taken here. Your text is kept; write to your instructor about it.',
    )
}

/** Until when somebody can change what they handed in: their own end of hand-in. */
export async function handInDue(
  db: Db,
  { activity, enrolment }: Pick<ActivityActor, 'activity' | 'enrolment'>,
): Promise<Date | null> {
  const [[phase], [extension]] = await Promise.all([
    db
      .select()
      .from(phases)
      .where(and(eq(phases.activityId, activity.id), eq(phases.name, 'write'))),
    db
      .select()
      .from(extensions)
      .where(and(eq(extensions.activityId, activity.id), eq(extensions.enrolmentId, enrolment.id))),
  ])
  return phase ? ownDueAt(phase.endsAt, extension ?? null) : null
}

/** Staff tick off work handed in on paper, or take the tick back while nobody reviews it. */
export function tickPaper(
  db: Database,
  actor: ActivityActor,
  write: { readonly key: string; readonly enrolmentId: string; readonly handedIn: boolean },
  now: Date,
) {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const peerReview = await loadPeerReview(tx, actor.activity)
    if (!peerReview.settings.ways.includes('paper'))
      throw refusedField(
        'handedIn',
        'way',
        'Paper is not among the ways in which work is handed in here. Add it to the plan first.',
      )
    if (!peerReview.students.some(s => s.enrolmentId === write.enrolmentId)) throw nothingHere()
    const there = peerReview.entries.find(e => e.ownerIds.includes(write.enrolmentId))
    if (write.handedIn === Boolean(there)) return { done: true }
    if (there) {
      if (there.detail.handIn?.way !== 'paper')
        throw refusedField(
          'handedIn',
          'notPaper',
          'This was handed in here, not on paper. Only its author takes it back.',
        )
      if (peerReview.allocations.some(a => a.entryId === there.id))
        throw refusedField('handedIn', 'dealt', 'This has its reviewers already, so the tick stays.')
      await tx
        .update(contributions)
        .set({ state: 'withdrawn', withdrawnAt: now, withdrawnBy: actor.enrolment.id })
        .where(eq(contributions.id, there.id))
      await announce(tx, { activityId: actor.activity.id, id: there.id })
      return { done: true }
    }
    const group = peerReview.settings.byGroup
      ? peerReview.groups.find(g => g.memberIds.includes(write.enrolmentId))
      : undefined
    const { doc, html, text, words, sources } = renderDoc({
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Handed in on paper.' }] }],
    })
    const [row] = await tx
      .insert(contributions)
      .values({
        seminarId: actor.seminar.id,
        activityId: actor.activity.id,
        authorId: write.enrolmentId,
        type: 'entry',
        state: 'shown',
        doc,
        html,
        text,
        words,
        sources,
        openerId: write.enrolmentId,
        slot: 'paper',
        detail: {
          handIn: { way: 'paper', tickedBy: actor.enrolment.id, ...(group && { groupId: group.id }) },
        },
        seq: await nextSeq(tx, actor.activity.id),
        savedAt: now,
        shownAt: now,
        madeAt: now,
      })
      .returning()
    await tx.update(contributions).set({ threadId: row!.id }).where(eq(contributions.id, row!.id))
    await noteActs(tx, actor, now, {
      act: 'paperHandInTicked',
      subjectId: row!.id,
    })
    await announce(tx, { activityId: actor.activity.id, id: row!.id })
    return { done: true }
  })
}
