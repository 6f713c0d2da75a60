import type { ClosingView } from '#shared/closing/closing'

/** Under which answers that are not handed in yet are kept in the browser: each round has its own. */
export const closingDraftKey = (view: Pick<ClosingView, 'activity' | 'round'>): string =>
  `jovrel:closing:${view.activity.id}:${view.round?.number ?? 1}`
