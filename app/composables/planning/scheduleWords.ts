import type { PhaseName, ScheduleFault } from '#core/planning/schedule'

export const PHASE_WORDS: Readonly<Record<PhaseName, string>> = {
  write: 'Write',
  respond: 'Respond',
  revise: 'Revise',
  review: 'Review',
  mark: 'Mark',
  return: 'Return',
}
const DOING: Readonly<Record<PhaseName, string>> = {
  write: 'writing',
  respond: 'responding',
  revise: 'revising',
  review: 'reviewing',
  mark: 'marking',
  return: 'returning',
}

/** Why a move is refused, in one sentence. */
export function faultWords(fault: ScheduleFault): string {
  switch (fault.code) {
    case 'noWorkingPhase':
      return 'There would be no time in which students work.'
    case 'endsBeforeItStarts':
      return `The end of ${DOING[fault.phase]} would come before its beginning.`
    case 'beforeOpening':
      return `The ${DOING[fault.phase]} would begin before the activity opens.`
    case 'reviewBeforeHandIn':
      return 'Reviewing would begin before hand-in ends, and nobody can review what is not in.'
  }
}
