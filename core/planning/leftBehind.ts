import type { Audience } from './audience'

/** What of an activity belongs to its seminar and does not go with a copy into another one. */
export const LEFT_BEHIND = [
  'audience', // the copy is for everyone there
  'joint',
  'rests',
  'apartIn',
  'sharesOf',
  'category', // none of that title there
  'scale',
] as const
export type LeftBehind = (typeof LEFT_BEHIND)[number]

interface Copied {
  readonly audience: Pick<Audience, 'kind'>
  readonly jointSeminarIds: readonly string[]
  readonly rests: readonly number[]
  readonly review: { readonly apartIn: string | null; readonly sharesOf: string | null }
  readonly categoryId: string | null
  readonly gradingScaleId: string | null
}

/**
 * What a copy into another seminar leaves behind, in the order of `LEFT_BEHIND`.
 *
 * @param copy as it was made there; left out: what is known before it is made
 */
export function leftBehind(from: Copied, copy?: Pick<Copied, 'categoryId' | 'gradingScaleId'>): LeftBehind[] {
  const isLeft: Readonly<Record<LeftBehind, boolean>> = {
    audience: from.audience.kind !== 'everyone',
    joint: from.jointSeminarIds.length > 0,
    rests: from.rests.length > 0,
    apartIn: from.review.apartIn !== null,
    sharesOf: from.review.sharesOf !== null,
    category: copy !== undefined && from.categoryId !== null && copy.categoryId === null,
    scale: copy !== undefined && from.gradingScaleId !== null && copy.gradingScaleId === null,
  }
  return LEFT_BEHIND.filter(part => isLeft[part])
}
