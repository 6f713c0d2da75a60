import { eq } from 'drizzle-orm'
import { reviewOf } from '#core/kinds/review/reviewSettings'
import type { RichNode } from '#core/contributing/richText'
import { letterOfMark, passes, showMark, worthOf } from '#core/marking/showMark'
import { fillPhrase } from '#core/marking/phrases'
import type { ActivityActor, ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { gradingScales, type ReturnedLetter } from '#server/database/schema'
import { renderDoc } from '#server/richText/renderDoc'
import type { LetterView } from '#shared/marking/letter'
import { isEmptyLetter } from './mark'
import type { MarkedRecord } from './markedRecords'

type Scale = typeof gradingScales.$inferSelect

/** The scale whose letters an activity's points are said in. */
export async function scaleOf(db: Db, { gradingScaleId }: ActivityRow): Promise<Scale | null> {
  if (!gradingScaleId) return null
  const [scale] = await db.select().from(gradingScales).where(eq(gradingScales.id, gradingScaleId))
  return scale ?? null
}

/** What a student would be given, from the record as it stands: names filled in, figures and passages as they are now. */
export function letterFrom(
  actor: ActivityActor,
  record: Pick<MarkedRecord, 'rubric' | 'mark' | 'late'> & {
    readonly student: { readonly givenName: string }
  },
  scale: Scale | null,
): ReturnedLetter {
  const { activity } = actor
  const { mark, rubric } = record
  const max = worthOf(activity)
  const letter = filled(mark.letter as RichNode, record.student.givenName)
  return {
    html: isEmptyLetter(letter) ? '' : renderDoc(letter).html,
    points: mark.points,
    max,
    by: actor.person.name,
    rubric: rubric?.title ?? null,
    scale: activity.scale,
    letter: letterOfMark(mark.points, max, scale),
    passed: passes(mark.points, max, activity.passPercent),
    late:
      record.late && activity.lateRule.kind !== 'none' && mark.override === null
        ? { minutes: record.late.minutes, before: mark.before ?? mark.points, waived: mark.lateWaived }
        : null,
    override:
      mark.override && mark.override.reason
        ? { reason: mark.override.reason, before: mark.before ?? mark.override.points }
        : null,
    factor: mark.factor,
    reviewing:
      mark.reviewing === null
        ? null
        : {
            share: mark.reviewing,
            percent: reviewOf(activity.settings).reviewingPercent,
            parts: mark.reviewingParts,
          },
    files: mark.files.map(({ id, name, type, size, spoken }) => ({ id, name, type, size, spoken })),
    criteria: (rubric?.criteria ?? []).map(criterion => {
      const step = mark.steps.find(s => s.criterionId === criterion.id)
      const level = criterion.levels.find(l => l.id === step?.levelId)
      const excused = mark.excusedFrom.find(e => e.criterionId === criterion.id)?.reason
      return {
        id: criterion.id,
        title: criterion.title,
        points: step?.points ?? 0,
        max: criterion.max,
        levelTitle: level?.title ?? '',
        descriptor: level?.descriptor ?? '',
        levels: criterion.levels.map(l => l.points),
        ...(excused && { excused }),
      }
    }),
    citations: mark.citations.map((c, i) => ({ number: i + 1, ...c })),
  }
}

/** The letter with what stands for the student's name filled in. */
function filled(node: RichNode, givenName: string): RichNode {
  return {
    ...node,
    ...(node.text !== undefined && { text: fillPhrase(node.text, { 'first name': givenName }) }),
    ...(node.content && { content: node.content.map(child => filled(child, givenName)) }),
  }
}

/** A letter as its student reads it. */
export function letterView(
  letter: ReturnedLetter,
  head: Pick<LetterView, 'activityId' | 'kind' | 'title' | 'to' | 'returnedAt'>,
): LetterView {
  return {
    ...head,
    by: letter.by,
    html: letter.html,
    rubric: letter.rubric,
    points: letter.points,
    max: letter.max,
    shown: showMark({
      points: letter.points,
      max: letter.max,
      scale: letter.scale ?? 'points',
      letter: letter.letter ?? null,
    }),
    passed: letter.passed ?? null,
    late: letter.late ?? null,
    override: letter.override ?? null,
    factor: letter.factor ?? null,
    reviewing: letter.reviewing ? { ...letter.reviewing, parts: letter.reviewing.parts ?? null } : null,
    files: (letter.files ?? []).map(f => ({ ...f, url: `/api/files/${f.id}` })),
    criteria: letter.criteria.map(c => ({ ...c, levels: [...c.levels], excused: c.excused ?? null })),
    citations: letter.citations.map(({ number, criterionId, contributionId, exact }) => ({
      number,
      criterionId,
      contributionId,
      exact,
    })),
  }
}
