import type { PhaseName } from '#core/planning/schedule'
import type { ContributionType } from '../contribution'

export const ACTIVITY_KINDS = [
  'discussion',
  'journal',
  'blog',
  'wiki',
  'reading',
  'review',
  'lexicon',
  'exitNote',
] as const
export type ActivityKind = (typeof ACTIVITY_KINDS)[number]

/** All that differs between kinds of activity; everything else is written once for contributions. */
export interface KindDefinition {
  readonly kind: ActivityKind
  readonly workingPhases: readonly PhaseName[] // phases a student works in, in their usual order
  readonly entryType: ContributionType // what an "entry" is: a post, a journal entry, a page version …
  readonly answerType: ContributionType | null // what answers it, null where nobody answers
  readonly readBy: 'class' | 'staff' // whom others' contributions may reach when no setting says otherwise
}
