import type { Phase } from './schedule'

export const BEGIN_ACTS = ['endHandIn', 'beginReviewing'] as const
/** Ends what is still written, or begins what is still waited for, before its time. */
export type BeginAct = (typeof BEGIN_ACTS)[number]
export type BeginFault = 'draft' | 'notOpen' | 'ended' | 'handInOpen' | 'begun' | 'noReviewing'

const MOMENT = 1 // milliseconds: work at the very instant a phase ends is on time, and now it is over

/** When an activity opens with these phases: no phase begins before it does. */
export const opensWith = (opensAt: Date, phases: readonly Phase[]): Date =>
  new Date(Math.min(opensAt.getTime(), ...phases.map(p => p.startsAt.getTime())))

/**
 * The phases of a peer review once one of them has ended or begun at `now` instead of at its time. Reviewing begins with
 * the end of hand-in where it did so before; no end but that of hand-in moves, so that nobody has less time to review.
 *
 * @returns the phases, or why that cannot be done
 */
export function phasesBegunNow<P extends Phase>(
  phases: readonly P[],
  act: BeginAct,
  now: Date,
): { readonly phases: readonly P[] } | { readonly fault: BeginFault } {
  const write = phases.find(p => p.name === 'write')
  const review = phases.find(p => p.name === 'review')
  if (!review) return { fault: 'noReviewing' }
  const change = (name: P['name'], part: Partial<Pick<Phase, 'startsAt' | 'endsAt'>>) => (p: P) =>
    p.name === name ? { ...p, ...part } : p
  if (act === 'beginReviewing') {
    if (review.startsAt <= now) return { fault: 'begun' }
    if (write && write.endsAt >= now) return { fault: 'handInOpen' }
    return { phases: phases.map(change('review', { startsAt: now })) }
  }
  if (!write || write.endsAt < now) return { fault: 'ended' }
  const end = new Date(now.getTime() - MOMENT)
  if (write.startsAt >= end) return { fault: 'notOpen' }
  const isAtOnce = review.startsAt <= write.endsAt
  return {
    phases: phases
      .map(change('write', { endsAt: end }))
      .map(isAtOnce ? change('review', { startsAt: end }) : p => p),
  }
}
