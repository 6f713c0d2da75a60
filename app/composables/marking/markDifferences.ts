import isSame from 'fast-deep-equal'
import { plainText, type RichNode } from '#core/contributing/richText'
import type { RubricView } from '#shared/contributing/activity'
import type { MarkView, Step } from '#shared/marking/desk'
import type { MarkText } from './markSaving'
import { points } from './points'

/** One thing in which two versions of a mark differ, with both in words. */
export interface MarkDifference {
  readonly key: string // `step:` and the criterion, or the part of the mark
  readonly title: string
  readonly mine: string
  readonly theirs: string
}
type Texts = Pick<MarkView, keyof MarkText>

const stepKey = (criterionId: string) => `step:${criterionId}`
const stepAt = (mark: Texts, criterionId: string): Step | null =>
  mark.steps.find(s => s.criterionId === criterionId) ?? null

/** In what two versions of a mark differ, criterion by criterion and part by part. */
export function markDifferences(mine: Texts, theirs: Texts, rubric: RubricView | null): MarkDifference[] {
  const steps = (rubric?.criteria ?? []).flatMap((c): MarkDifference[] => {
    const [a, b] = [stepAt(mine, c.id), stepAt(theirs, c.id)]
    if (a?.levelId === b?.levelId && a?.points === b?.points) return []
    const words = (step: Step | null) => {
      const level = c.levels.find(l => l.id === step?.levelId)
      return step && level ? `${level.title}, ${points(step.points)}` : 'no step'
    }
    return [{ key: stepKey(c.id), title: c.title, mine: words(a), theirs: words(b) }]
  })
  const titleOf = (id: string) => rubric?.criteria.find(c => c.id === id)?.title ?? 'a criterion'
  const parts: ReadonlyArray<readonly [keyof MarkText, string, (mark: Texts) => string]> = [
    ['letter', 'Letter', m => plainText(m.letter as RichNode).trim() || 'nothing written'],
    ['markerNote', 'Marker’s note', m => m.markerNote.trim() || 'nothing written'],
    ['override', 'Points set by hand', m => (m.override ? points(m.override.points) : 'not set')],
    ['lateWaived', 'Lateness', m => (m.lateWaived ? 'counted as on time' : 'counted as late')],
    [
      'excusedFrom',
      'Left out of',
      m => m.excusedFrom.map(e => titleOf(e.criterionId)).join(', ') || 'no criterion',
    ],
    ['citations', 'Cited', m => m.citations.map(c => `“${c.exact}”`).join('\n') || 'nothing'],
    [
      'ownSteps',
      'Your own points beside the readers’',
      m => m.ownSteps.map(s => `${titleOf(s.criterionId)} ${points(s.points)}`).join(', ') || 'none',
    ],
    ['files', 'Files', m => m.files.map(f => f.name).join(', ') || 'no file'],
  ]
  return [
    ...steps,
    ...parts.flatMap(([key, title, words]) =>
      isSame(mine[key], theirs[key]) ? [] : [{ key, title, mine: words(mine), theirs: words(theirs) }],
    ),
  ]
}

/** A mark of two: mine, with theirs where that was chosen. */
export function joinMarks(mine: Texts, theirs: Texts, takeTheirs: ReadonlySet<string>): MarkText {
  const from = <K extends keyof MarkText>(key: K) => (takeTheirs.has(key) ? theirs : mine)[key]
  const criteria = [...new Set([...mine.steps, ...theirs.steps].map(s => s.criterionId))]
  return {
    steps: criteria.flatMap(id => stepAt(takeTheirs.has(stepKey(id)) ? theirs : mine, id) ?? []),
    ownSteps: [...from('ownSteps')],
    letter: from('letter'),
    markerNote: from('markerNote'),
    override: from('override'),
    lateWaived: from('lateWaived'),
    excusedFrom: from('excusedFrom'),
    citations: from('citations'),
    files: from('files'),
  }
}
