import { and, asc, eq, inArray } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { criterionMarks, enrolments, groupMembers, groups, marks } from '#server/database/schema'
import type { RubricView } from '#shared/contributing/activity'
import type { RecordView, Step } from '#shared/marking/desk'
import { emptyMark } from './mark'

/** The group somebody is in for an activity that is set for groups, with all its active members. */
export async function groupOf(
  db: Db,
  activity: ActivityRow,
  enrolmentId: string,
): Promise<RecordView['group']> {
  const { audience } = activity
  if (audience.kind !== 'groups') return null
  const [own] = await db
    .select({ id: groups.id, title: groups.title })
    .from(groupMembers)
    .innerJoin(groups, eq(groups.id, groupMembers.groupId))
    .where(and(eq(groupMembers.groupPlanId, audience.groupPlanId), eq(groupMembers.enrolmentId, enrolmentId)))
  if (!own) return null
  const members = await db
    .select({ id: enrolments.id, name: enrolments.name })
    .from(groupMembers)
    .innerJoin(enrolments, eq(enrolments.id, groupMembers.enrolmentId))
    .where(and(eq(groupMembers.groupId, own.id), eq(enrolments.state, 'active')))
    .orderBy(asc(enrolments.familyName), asc(enrolments.givenName))
  return { ...own, members, whole: activity.groupMark }
}

/**
 * Gives the steps of criteria that are the group's, or of all where the whole group gets one mark, to all
 * its members: judged once, joined to each one's own. A member's
 * mark that was returned is held again until its next return, like any mark that is changed.
 * @returns whose marks changed by it
 */
export async function spreadGroupSteps(
  tx: Db,
  actor: Actor & { readonly activity: ActivityRow },
  rubric: RubricView,
  enrolmentId: string,
  steps: readonly Step[],
  now: Date,
): Promise<string[]> {
  const shared = new Set(
    rubric.criteria.filter(c => c.scope === 'group' || actor.activity.groupMark).map(c => c.id),
  )
  const group = shared.size > 0 ? await groupOf(tx, actor.activity, enrolmentId) : null
  const others =
    group?.members
      .filter(m => m.id !== enrolmentId)
      .map(m => m.id)
      .sort() ?? []
  const changed: string[] = []
  if (others.length === 0) return changed
  const wanted = steps.filter(s => shared.has(s.criterionId))
  for (const memberId of others) {
    const [stored] = await tx
      .select()
      .from(marks)
      .where(and(eq(marks.activityId, actor.activity.id), eq(marks.enrolmentId, memberId)))
      .for('update')
    const had = stored
      ? await tx
          .select()
          .from(criterionMarks)
          .where(and(eq(criterionMarks.markId, stored.id), inArray(criterionMarks.criterionId, [...shared])))
      : []
    const said = (list: readonly Step[]) =>
      list
        .map(s => `${s.criterionId}:${s.levelId}:${s.points}`)
        .sort()
        .join()
    if (said(had) === said(wanted)) continue
    // a mark under another version of the rubric has criteria of its own
    if (
      stored &&
      stored.rubricVersionId !== rubric.versionId &&
      (await tx.$count(criterionMarks, eq(criterionMarks.markId, stored.id))) > 0
    )
      continue
    const { letter } = emptyMark()
    const markId =
      stored?.id ??
      (
        await tx
          .insert(marks)
          .values({
            seminarId: actor.seminar.id,
            activityId: actor.activity.id,
            enrolmentId: memberId,
            rubricVersionId: rubric.versionId,
            letter: letter as typeof marks.$inferInsert.letter,
            letterText: plainText(letter as RichNode),
            markedBy: actor.enrolment.id,
            savedAt: now,
          })
          .returning({ id: marks.id })
      )[0]!.id
    await tx
      .delete(criterionMarks)
      .where(and(eq(criterionMarks.markId, markId), inArray(criterionMarks.criterionId, [...shared])))
    if (wanted.length > 0)
      await tx.insert(criterionMarks).values(wanted.map(s => ({ seminarId: actor.seminar.id, markId, ...s })))
    if (stored)
      await tx
        .update(marks)
        .set({
          version: stored.version + 1,
          rubricVersionId: rubric.versionId,
          state: stored.state === 'returned' ? 'held' : stored.state,
          savedAt: now,
          markedBy: actor.enrolment.id,
        })
        .where(eq(marks.id, stored.id))
    changed.push(memberId)
    await noteActs(tx, actor, now, {
      act: 'groupStepsSet',
      subjectId: markId,
      detail: {
        group: group!.title,
        steps: wanted.map(s => ({ criterionId: s.criterionId, points: s.points })),
      },
    })
  }
  return changed
}
