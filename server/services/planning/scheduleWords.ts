import type { PhaseName, ScheduleFault } from '#core/planning/schedule'

const NAMES: Readonly<Record<PhaseName, string>> = {
  write: 'writing',
  respond: 'responding',
  revise: 'revising',
  review: 'reviewing',
  mark: 'marking',
  return: 'returning',
}
export const phaseWord = (phase: PhaseName): string => NAMES[phase]

/** Why a schedule is refused. */
export function scheduleSentence(fault: ScheduleFault): string {
  switch (fault.code) {
    case 'noWorkingPhase':
      return 'There is no time in which students work. Add a phase of writing.'
    case 'endsBeforeItStarts':
      return `The end of ${NAMES[fault.phase]} would come before its beginning. Nothing was moved.`
    case 'beforeOpening':
      return `The ${NAMES[fault.phase]} would begin before the activity opens. Nothing was moved.`
    case 'reviewBeforeHandIn':
      return 'Reviewing would begin before hand-in ends, and nobody can review what is not in. Nothing was moved.'
  }
}
