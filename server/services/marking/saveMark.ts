import { and, eq, inArray } from 'drizzle-orm'
import { plainText } from '#core/contributing/richText'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { auditTrail, citations, contributions, criterionMarks, marks } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { once } from '#server/services/receipt'
import type { RubricView } from '#shared/contributing/activity'
import type { MarkView, MarkWrite } from '#shared/marking/desk'
import { loadMark, rubricOfMark } from './mark'
import { recordView, requireStudent } from './record'

type ActorAt = Actor & { readonly activity: ActivityRow }

/** Takes the mark's row for this write, or refuses when it has moved on since the marker saw it. */
export async function requireCurrent(tx: Db, actor: ActorAt, enrolmentId: string, baseVersion: number) {
  const [row] = await tx.select().from(marks).where(and(eq(marks.activityId, actor.activity.id), eq(marks.enrolmentId, enrolmentId))).for('update')
  if ((row?.version ?? 0) !== baseVersion) throw changedMeanwhile(await loadMark(tx, actor, enrolmentId))
  return row
}

const changedMeanwhile = (theirs: MarkView) => new Problem(409, 'changedMeanwhile',
  `${theirs.savedBy ?? 'Someone'} saved this mark meanwhile. Nothing was overwritten: both are shown, choose what stays.`, { theirs })

/**
 * Saves the mark as it stands on the desk. Points come from the rubric's steps here, never from the client.
 * A returned mark that is changed is held again; the student keeps the letter that was returned until the next return.
 */
export function saveMark(db: Database, actor: ActorAt, enrolmentId: string, write: MarkWrite, now: Date): Promise<MarkView> {
  return once(db, actor.enrolment, write.key, async (tx) => {
    await requireStudent(tx, actor, enrolmentId)
    const rubric = await rubricOfMark(tx, actor.activity, enrolmentId)
    if (!rubric) throw refusedField('steps', 'noRubric', 'This activity is not marked by a rubric.')
    const levels = requireSteps(rubric, write.steps)
    await requireCitations(tx, actor, rubric, enrolmentId, write.citations)
    const before = await requireCurrent(tx, actor, enrolmentId, write.baseVersion)
    const columns = {
      letter: write.letter, letterText: plainText(write.letter), markerNote: write.markerNote, lateWaived: write.lateWaived,
      markedBy: actor.enrolment.id, savedAt: now, state: before?.state === 'returned' ? 'held' as const : before?.state ?? 'open' as const,
      version: write.baseVersion + 1, rubricVersionId: rubric.versionId,
    }
    const [stored] = before
      ? await tx.update(marks).set(columns).where(eq(marks.id, before.id)).returning()
      : await tx.insert(marks).values({ ...columns, seminarId: actor.seminar.id, activityId: actor.activity.id, enrolmentId }).onConflictDoNothing().returning()
    if (!stored) throw changedMeanwhile(await loadMark(db, actor, enrolmentId)) // someone else's first save came in between
    const old = await tx.select().from(criterionMarks).where(eq(criterionMarks.markId, stored.id))
    await tx.delete(criterionMarks).where(eq(criterionMarks.markId, stored.id))
    await tx.delete(citations).where(eq(citations.markId, stored.id))
    const ids = { seminarId: actor.seminar.id, markId: stored.id }
    if (write.steps.length > 0) await tx.insert(criterionMarks).values(write.steps.map(s => ({ ...ids, ...s, points: levels.get(s.levelId)! })))
    if (write.citations.length > 0) await tx.insert(citations).values(write.citations.map((c, position) => ({ ...ids, ...c, position })))
    await writeDownSteps(tx, actor, stored.id, old, write.steps, now)
    const { mark } = await recordView(tx, actor, enrolmentId, now)
    await tx.update(marks).set({ points: mark.criteriaLeft === 0 ? mark.points : null }).where(eq(marks.id, stored.id))
    return mark
  })
}

/** Points by level; a step that is not on the rubric is refused. */
function requireSteps(rubric: RubricView, steps: MarkWrite['steps']): Map<string, number> {
  const points = new Map<string, number>()
  const seen = new Set<string>()
  for (const step of steps) {
    const criterion = rubric.criteria.find(c => c.id === step.criterionId)
    const level = criterion?.levels.find(l => l.id === step.levelId)
    if (!level || seen.has(step.criterionId)) throw refusedField('steps', 'notOnRubric', 'That step is not on this rubric. Reload the page: the rubric may have been changed.')
    seen.add(step.criterionId)
    points.set(level.id, level.points)
  }
  return points
}

/** A citation must be words of this student in this activity. */
async function requireCitations(tx: Db, actor: ActorAt, rubric: RubricView, enrolmentId: string, cited: MarkWrite['citations']): Promise<void> {
  if (cited.length === 0) return
  const rows = await tx.select({ id: contributions.id, text: contributions.text }).from(contributions).where(and(
    inArray(contributions.id, cited.map(c => c.contributionId)), eq(contributions.activityId, actor.activity.id),
    eq(contributions.authorId, enrolmentId), inArray(contributions.state, ['shown', 'withdrawn']),
  ))
  for (const citation of cited) {
    const text = rows.find(r => r.id === citation.contributionId)?.text
    if (!text?.includes(citation.exact) || !rubric.criteria.some(c => c.id === citation.criterionId)) {
      throw refusedField('citations', 'passageGone', `“${citation.exact.slice(0, 60)}” is not in this student's record as it stands now. Choose the passage again.`)
    }
  }
}

async function writeDownSteps(tx: Db, actor: ActorAt, markId: string, old: readonly { criterionId: string, levelId: string }[], steps: MarkWrite['steps'], now: Date): Promise<void> {
  const from = new Map(old.map(s => [s.criterionId, s.levelId]))
  const to = new Map(steps.map(s => [s.criterionId, s.levelId]))
  const changed = [...new Set([...from.keys(), ...to.keys()])].filter(c => from.get(c) !== to.get(c))
  if (changed.length === 0) return
  await tx.insert(auditTrail).values({
    seminarId: actor.seminar.id, actorId: actor.enrolment.id, at: now, act: 'changed the steps of a mark', subjectId: markId,
    detail: { steps: changed.map(c => ({ criterionId: c, from: from.get(c) ?? null, to: to.get(c) ?? null })) },
  })
}
