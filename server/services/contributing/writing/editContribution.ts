import { detailOf, titleOf } from '#core/kinds/contributionDetail'
import { eq } from 'drizzle-orm'
import { withPicturesOf } from '#core/contributing/picturesIn'
import { talkOf } from '#core/contributing/talkSettings'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { contributionRevisions, contributions } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { announce } from '#server/services/contributing/announce'
import { withIdempotency } from '#server/services/idempotency'
import type { EditWrite } from '#shared/contributing/thread'
import { hooksOf } from '#server/services/contributing/kindHooks'
import { renderDoc } from '#server/richText/renderDoc'
import { attachedFiles } from '#server/services/contributing/storedContributions'
import { type Contribution, requireOwn } from './requireOwn'
import { columnsOf } from './postContribution'

/** Changes one's own text within the window; the earlier text is kept as a revision. */
export function editContribution(
  db: Database,
  actor: ActivityActor & { readonly contribution: Contribution },
  write: EditWrite,
  now: Date,
) {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const current = await requireOwn(tx, actor, now, 'changed')
    const files = (await attachedFiles(tx, { ids: [current.id] })).get(current.id) ?? []
    const rendered = renderDoc(
      withPicturesOf(
        write.doc,
        files.map(f => f.id),
      ),
    )
    if (current.state === 'withdrawn')
      throw refusedField('doc', 'withdrawn', 'This post is withdrawn. Restore it first, then edit it.')
    if (talkOf(actor.activity.settings).approval && current.state === 'shown' && !isStaff(actor.enrolment))
      throw refusedField(
        'doc',
        'approved',
        'This was approved as it stands, so it stays. Withdraw it and post it again, or add a reply.',
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
        'There are no words left. Withdraw the post instead, if it should go.',
      )
    await tx.insert(contributionRevisions).values({ ...revisionOf(current), replacedAt: now })
    const changed = await hooksOf(actor.activity.kind).changedDetail?.(tx, actor, current, write)
    const findDetail = () => {
      if (changed) return { ...current.detail, ...changed }
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
  const { term } = detailOf(contribution, 'term')
  return {
    doc: contribution.doc,
    title: titleOf(contribution),
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
const revisionOf = (c: Contribution) => ({
  seminarId: c.seminarId,
  contributionId: c.id,
  version: c.version,
  doc: c.doc,
  html: c.html,
  text: c.text,
  words: c.words,
})
