import type { ExpectationRule } from '#core/planning/expectations/rule'
import type { ReviewSettings } from './reviewSettings'

interface Planned<R> {
  readonly review: Pick<ReviewSettings, 'subject' | 'each'>
  readonly rules: readonly R[]
}

/**
 * How many reviews each gives is one number, as an expectation and as what is assigned: whichever of the two was changed
 * drives the other. Of teammates, everyone in the group is reviewed, however many they are.
 *
 * @returns the settings and expectations that say the same
 */
export function withOneCount<R extends { readonly rule: ExpectationRule }, P extends Planned<R>>(
  before: Planned<R>,
  after: P,
): { readonly review: P['review']; readonly rules: R[] } {
  const everyone = after.review.subject === 'teammates'
  const asked = after.rules.find(r => r.rule.kind === 'reviews')?.rule.need
  const wasSet = before.review.each !== after.review.each
  const each = wasSet || asked === undefined || everyone ? after.review.each : asked
  const same = (r: R): R =>
    r.rule.kind === 'reviews'
      ? {
          ...r,
          rule: {
            ...withoutEveryone(r.rule),
            need: everyone ? r.rule.need : each,
            ...(everyone && { everyone }),
          },
        }
      : r
  return { review: { ...after.review, each }, rules: after.rules.map(same) }
}

type Reviews = Extract<ExpectationRule, { kind: 'reviews' }>
function withoutEveryone({ everyone: _, ...rule }: Reviews): Reviews {
  return rule
}

/** How many reviews are asked of somebody: as many as are assigned to them, and what the rule says before that. */
export const reviewsAskedOf = (rule: Reviews, assigned: number): number =>
  assigned > 0 ? assigned : rule.need
