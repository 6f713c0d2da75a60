import type { OutcomeView } from '#shared/marking/rubric'

/** A learning outcome as a criterion of a rubric is linked to it. */
export type OfferedOutcome = Pick<OutcomeView, 'identifier' | 'code' | 'statement' | 'retired'>
