import { eq } from 'drizzle-orm'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { auditTrail, contributions } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { announce } from './announce'
import { happened } from '#server/services/events'
import type { ApprovalWrite } from '#shared/contributing/thread'
import { nextSeq } from './numbering'
import { requireStaffAbout } from './requireStaffAbout'

/** Lets what was held for approval be shown, or sends it back to its author with a remark; it stays theirs to change and waits on. */
export async function approve(
  db: Database,
  actor: ActivityActor & { readonly contribution: typeof contributions.$inferSelect },
  write: ApprovalWrite,
  now: Date,
) {
  await requireStaffAbout(db, actor, 'What is shown here, the instructor decides.', now)
  return db.transaction(async tx => {
    const [current] = await tx
      .select()
      .from(contributions)
      .where(eq(contributions.id, actor.contribution.id))
      .for('update')
    if (!current || current.state === 'draft' || current.state === 'scheduled') throw nothingHere()
    if (current.state !== 'awaitingApproval') {
      if (current.state === 'shown' && write.approved) return { done: true } // the other marker was quicker
      throw new Problem(
        409,
        'decided',
        current.state === 'shown'
          ? 'This is shown already. To hide it, withdraw it.'
          : 'Its author has withdrawn it meanwhile.',
      )
    }
    if (!write.approved && write.remark === '')
      throw new Problem(422, 'noRemark', 'Say in a line what is to change, so that its author can go on.', {
        fields: { remark: 'Say in a line what is to change, so that its author can go on.' },
      })
    await tx
      .update(contributions)
      .set(
        write.approved
          ? { state: 'shown', seq: await nextSeq(tx, current.activityId), sentBack: null }
          : { sentBack: write.remark },
      )
      .where(eq(contributions.id, current.id))
    await tx.insert(auditTrail).values({
      seminarId: current.seminarId,
      actorId: actor.enrolment.id,
      at: now,
      act: write.approved ? 'contributionApproved' : 'contributionSentBack',
      subjectId: current.id,
    })
    const about = {
      activity: actor.activity,
      enrolmentId: current.authorId,
      contributionId: current.id,
    }
    await happened(
      tx,
      write.approved ? { kind: 'approved', ...about } : { kind: 'sentBack', ...about, remark: write.remark },
      now,
    )
    await announce(tx, { activityId: current.activityId, id: current.id })
    return { done: true }
  })
}
