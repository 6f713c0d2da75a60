/** What a contribution is within its activity; the kind of activity says which of them it takes. */
export const CONTRIBUTION_TYPES = [
  'post',
  'reply',
  'entry',
  'comment',
  'note',
  'question',
  'pageVersion',
  'review',
  'term',
] as const
export type ContributionType = (typeof CONTRIBUTION_TYPES)[number]

/** One life for contributions of every kind. */
export const CONTRIBUTION_STATES = ['draft', 'scheduled', 'awaitingApproval', 'shown', 'withdrawn'] as const
export type ContributionState = (typeof CONTRIBUTION_STATES)[number]
