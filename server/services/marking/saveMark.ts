import { KINDS } from '#core/kinds'
import { noteActs } from '#server/services/auditTrail'
import { and, eq, inArray, ne } from 'drizzle-orm'
import { plainText } from '#core/contributing/richText'
import { ownAfter } from '#core/marking/peers/ownSteps'
import { worthOf } from '#core/marking/showMark'
import type { ActivityRow, ActivityActor } from '#server/access/seminar'
import type { AuditAct } from '#server/database/auditActs'
import type { Database, Db } from '#server/database/client'
import {
  citations,
  contributions,
  criterionMarks,
  enrolments,
  files,
  markFiles,
  marks,
} from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { withIdempotency } from '#server/services/idempotency'
import type { RubricView } from '#shared/contributing/activity'
import type { MarkView, MarkWrite, Step } from '#shared/marking/desk'
import { spreadGroupSteps } from './groupCriteria'
import { loadMark, rubricOfMark } from './mark'
import { requireStudent } from './markedStudents'
import { secondOf } from './secondOf'
import { requireSteps } from './steps'
import { storePoints } from './storePoints'

/** Takes the mark's row for this write, or refuses when it has moved on since the marker saw it. */
export async function requireCurrent(
  tx: Db,
  actor: ActivityActor,
  enrolmentId: string,
  baseVersion: number,
  now: Date,
) {
  const [row] = await tx
    .select()
    .from(marks)
    .where(and(eq(marks.activityId, actor.activity.id), eq(marks.enrolmentId, enrolmentId)))
    .for('update')
  if ((row?.version ?? 0) !== baseVersion) throw changedMeanwhile(await loadMark(tx, actor, enrolmentId, now))
  return row
}

const changedMeanwhile = (theirs: MarkView) =>
  new Problem(
    409,
    'changedMeanwhile',
    `${theirs.savedBy ?? 'Someone'} saved this mark meanwhile. Nothing was overwritten: both are shown, choose what stays.`,
    { theirs },
  )

/**
 * Saves the mark as it stands on the desk. Points come from the rubric's steps here, never from the client.
 * A returned mark that is changed is held again; the student keeps the letter that was returned until the next return.
 */
export function saveMark(
  db: Database,
  actor: ActivityActor,
  enrolmentId: string,
  write: MarkWrite,
  now: Date,
): Promise<MarkView> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    await requireStudent(tx, actor, enrolmentId)
    await requireNotBlind(tx, actor, enrolmentId)
    const rubric = await rubricOfMark(tx, actor.activity, enrolmentId)
    if (!rubric && write.steps.length > 0)
      throw refusedField('steps', 'noRubric', 'This activity is not marked by a rubric.')
    const isOfPeers = KINDS[actor.activity.kind].markedBy === 'peers'
    const steps = rubric ? requireSteps(rubric, write.steps, isOfPeers) : []
    if (rubric) await requireCitations(tx, actor, rubric, enrolmentId, write.citations)
    requireExcuses(actor.activity, rubric, write)
    requireOverride(actor.activity, rubric, write)
    const before = await requireCurrent(tx, actor, enrolmentId, write.baseVersion, now)
    const old = before
      ? await tx.select().from(criterionMarks).where(eq(criterionMarks.markId, before.id))
      : []
    const columns = {
      ...(rubric && isOfPeers
        ? { ownSteps: ownStepsOf(rubric, write, before?.ownSteps ?? [], old, steps) }
        : {}),
      letter: write.letter,
      letterText: plainText(write.letter),
      markerNote: write.markerNote,
      lateWaived: write.lateWaived,
      excusedFrom: write.excusedFrom,
      overridePoints: write.override?.points ?? null,
      overrideReason: write.override?.reason ?? null,
      markedBy: actor.enrolment.id,
      savedAt: now,
      state: before?.state === 'returned' ? ('held' as const) : (before?.state ?? ('open' as const)),
      version: write.baseVersion + 1,
      rubricVersionId: rubric?.versionId ?? null,
    }
    const [stored] = before
      ? await tx.update(marks).set(columns).where(eq(marks.id, before.id)).returning()
      : await tx
          .insert(marks)
          .values({ ...columns, seminarId: actor.seminar.id, activityId: actor.activity.id, enrolmentId })
          .onConflictDoNothing()
          .returning()
    if (!stored) throw changedMeanwhile(await loadMark(db, actor, enrolmentId, now)) // someone else's first save came in between
    // steps changed by hand are the marker's own from then on
    if (stored.takenFrom && !sameSteps(old, steps))
      await tx.update(marks).set({ takenFrom: null }).where(eq(marks.id, stored.id))
    await tx.delete(criterionMarks).where(eq(criterionMarks.markId, stored.id))
    await tx.delete(citations).where(eq(citations.markId, stored.id))
    const ids = { seminarId: actor.seminar.id, markId: stored.id }
    if (steps.length > 0) await tx.insert(criterionMarks).values(steps.map(s => ({ ...ids, ...s })))
    if (rubric && write.citations.length > 0)
      await tx.insert(citations).values(write.citations.map((c, position) => ({ ...ids, ...c, position })))
    await keepFiles(tx, actor, stored.id, write.files)
    await writeDownChanges(
      tx,
      actor,
      stored.id,
      { steps: old, override: before?.overridePoints ?? null, waived: before?.lateWaived ?? false },
      { ...write, steps },
      now,
    )
    const others = rubric ? await spreadGroupSteps(tx, actor, rubric, enrolmentId, steps, now) : []
    const calculated = await storePoints(tx, actor, [...others, enrolmentId], now)
    return calculated.get(enrolmentId)!
  })
}

const sameSteps = (a: readonly Step[], b: readonly Step[]): boolean =>
  a.length === b.length && a.every(x => b.some(y => y.criterionId === x.criterionId && y.points === x.points))

/** Points of the marker's own beside the readers': as they were sent, or as they follow from what was changed by hand. */
const ownStepsOf = (
  rubric: RubricView,
  write: MarkWrite,
  own: readonly Step[],
  before: readonly Step[],
  after: readonly Step[],
): readonly Step[] =>
  write.ownSteps ? requireSteps(rubric, write.ownSteps, true) : ownAfter(own, before, after)

/** A second marker who has not handed over writes beside the mark, never into it. */
async function requireNotBlind(tx: Db, actor: ActivityActor, enrolmentId: string): Promise<void> {
  const second = await secondOf(tx, actor.activity.id, enrolmentId)
  if (second?.markerId === actor.enrolment.id && second.state === 'asked')
    throw new Problem(
      409,
      'secondAsked',
      'You are asked to mark this record a second time, without seeing the first. Hand your own steps over; then both are shown.',
    )
}

function requireExcuses(activity: ActivityRow, rubric: RubricView | null, { excusedFrom }: MarkWrite): void {
  for (const { criterionId } of excusedFrom) {
    if (rubric?.criteria.find(c => c.id === criterionId)?.scope !== 'group' && !activity.groupMark)
      throw refusedField(
        'excusedFrom',
        'ownCriterion',
        'One can be left out of a criterion of the group only.',
      )
  }
  if (rubric && excusedFrom.length >= rubric.criteria.length)
    throw refusedField(
      'excusedFrom',
      'nothingLeft',
      'Left out of every criterion, there would be nothing to mark. Excuse the student from the activity in the gradebook instead.',
    )
}

function requireOverride(activity: ActivityRow, rubric: RubricView | null, { override }: MarkWrite): void {
  if (!override) return
  const max = worthOf(activity)
  if (max <= 0)
    throw refusedField(
      'override',
      'worthNothing',
      'This activity is worth no points, so there are none to set. Give it points in its plan first.',
    )
  if (override.points > max)
    throw refusedField(
      'override',
      'tooMany',
      `There are ${max / 100} points to get here; ${override.points / 100} is more.`,
    )
  if (override.reason === '' && (rubric || activity.combine))
    throw refusedField(
      'override',
      'reason',
      'Say why the points differ from what was calculated; it is kept with the mark.',
    )
}

/** Makes exactly these files go with the letter: brought by staff, and not with another letter. */
async function keepFiles(
  tx: Db,
  actor: ActivityActor,
  markId: string,
  wanted: MarkWrite['files'],
): Promise<void> {
  const ids = [...new Set(wanted.map(f => f.id))]
  const [known, elsewhere] =
    ids.length === 0
      ? [[], []]
      : await Promise.all([
          tx
            .select({ id: files.id })
            .from(files)
            .innerJoin(enrolments, eq(enrolments.id, files.madeBy))
            .where(
              and(
                inArray(files.id, ids),
                eq(files.seminarId, actor.seminar.id),
                inArray(enrolments.role, ['instructor', 'assistant']),
              ),
            ),
          tx
            .select({ id: markFiles.fileId })
            .from(markFiles)
            .where(and(inArray(markFiles.fileId, ids), ne(markFiles.markId, markId))),
        ])
  if (known.length < ids.length || elsewhere.length > 0)
    throw refusedField('files', 'gone', 'One of these files is not there any more. Add it again.')
  await tx.update(markFiles).set({ takenOff: true }).where(eq(markFiles.markId, markId))
  for (const [position, fileId] of ids.entries()) {
    const row = { position, spoken: wanted.find(f => f.id === fileId)!.spoken, takenOff: false }
    await tx
      .insert(markFiles)
      .values({ seminarId: actor.seminar.id, markId, fileId, ...row })
      .onConflictDoUpdate({ target: [markFiles.markId, markFiles.fileId], set: row })
  }
}

/** A citation must be words of this student in this activity. */
async function requireCitations(
  tx: Db,
  actor: ActivityActor,
  rubric: RubricView,
  enrolmentId: string,
  cited: MarkWrite['citations'],
): Promise<void> {
  if (cited.length === 0) return
  const rows = await tx
    .select({ id: contributions.id, text: contributions.text })
    .from(contributions)
    .where(
      and(
        inArray(
          contributions.id,
          cited.map(c => c.contributionId),
        ),
        eq(contributions.activityId, actor.activity.id),
        eq(contributions.authorId, enrolmentId),
        inArray(contributions.state, ['shown', 'withdrawn']),
      ),
    )
  for (const citation of cited) {
    const text = rows.find(r => r.id === citation.contributionId)?.text
    if (!text?.includes(citation.exact) || !rubric.criteria.some(c => c.id === citation.criterionId)) {
      throw refusedField(
        'citations',
        'passageGone',
        `“${citation.exact.slice(0, 60)}” is not in this student's record as it stands now. Choose the passage again.`,
      )
    }
  }
}

interface Before {
  readonly steps: ReadonlyArray<{
    readonly criterionId: string
    readonly levelId: string
    readonly points: number
  }>
  readonly override: number | null
  readonly waived: boolean
}

/** What changed in a mark, each kind of change as an entry of its own: who, when, what and, where one was given, why. */
async function writeDownChanges(
  tx: Db,
  actor: ActivityActor,
  markId: string,
  was: Before,
  is: Pick<MarkWrite, 'override' | 'lateWaived'> & { readonly steps: readonly Step[] },
  now: Date,
): Promise<void> {
  const from = new Map(was.steps.map(s => [s.criterionId, s]))
  const to = new Map(is.steps.map(s => [s.criterionId, s]))
  const changed = [...new Set([...from.keys(), ...to.keys()])].filter(
    c => from.get(c)?.levelId !== to.get(c)?.levelId || from.get(c)?.points !== to.get(c)?.points,
  )
  const entries: Array<{ act: AuditAct; detail: object }> = []
  if (changed.length > 0)
    entries.push({
      act: 'markStepsChanged',
      detail: {
        steps: changed.map(c => ({
          criterionId: c,
          from: from.get(c)?.levelId ?? null,
          to: to.get(c)?.levelId ?? null,
          pointsFrom: from.get(c)?.points ?? null,
          pointsTo: to.get(c)?.points ?? null,
        })),
      },
    })
  if (was.override !== (is.override?.points ?? null))
    entries.push({
      act: 'markPointsSet',
      detail: { from: was.override, to: is.override?.points ?? null, reason: is.override?.reason ?? '' },
    })
  if (was.waived !== is.lateWaived)
    entries.push({ act: is.lateWaived ? 'latenessWaived' : 'latenessCounted', detail: {} })
  if (entries.length > 0)
    await noteActs(
      tx,
      actor,
      now,
      ...entries.map(e => ({
        subjectId: markId,
        ...e,
      })),
    )
}
