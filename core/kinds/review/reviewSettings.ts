import { USUAL_REVIEWING, type ReviewingWeights } from '#core/marking/peers/reviewingMark'
import type { ShareBounds } from '#core/marking/peers/ownShare'

export const HAND_IN_WAYS = ['text', 'file', 'link', 'paper'] as const
export type SubmissionMethod = (typeof HAND_IN_WAYS)[number]

/** Asked of every reviewer besides the criteria; a model answer stands beside it while they review. */
export interface ReviewQuestion {
  readonly id: string
  readonly text: string
  readonly model: string | null
  readonly minWords: number
}

/** How a peer review goes; all of it can be changed while it goes on, but what is dealt out stays dealt until it is repaired. */
export interface ReviewSettings {
  readonly subject: 'work' | 'teammates' // classmates' work without names, or everyone in a group with names
  readonly each: number // reviews everyone gives
  readonly self: boolean // also one's own, or oneself
  readonly apartIn: string | null // group plan whose groupmates do not review each other
  readonly ways: readonly SubmissionMethod[] // what is taken in
  readonly byGroup: boolean // one hand-in for each group of the audience
  readonly late: 'taken' | 'refused'
  readonly together: boolean // reviews go in all at once, not one by one
  readonly remarkWords: number // at least so many words for each criterion; 0: a remark is not asked for
  readonly questions: readonly ReviewQuestion[]
  readonly release: 'looked' | 'atOnce' | 'at'
  readonly releaseAt: string | null // an instant, where release is 'at'
  readonly helpful: boolean // authors say how helpful a review was
  readonly reviewingPercent: number // of the points: what one's own reviewing counts
  readonly weights: ReviewingWeights
  readonly bounds: ShareBounds // of teammates: how far a share can move the group's mark
  readonly sharesOf: string | null // of teammates: the activity whose group mark is shared
}

export const USUAL_REVIEW: ReviewSettings = {
  subject: 'work',
  each: 3,
  self: false,
  apartIn: null,
  ways: ['text', 'file'],
  byGroup: false,
  late: 'taken',
  together: false,
  remarkWords: 20,
  questions: [],
  release: 'looked',
  releaseAt: null,
  helpful: true,
  reviewingPercent: 0,
  weights: USUAL_REVIEWING,
  bounds: { least: 0.8, most: 1.1 },
  sharesOf: null,
}

/** The settings of a review with the usual where nothing is set. */
export const reviewOf = (settings: { readonly review?: Partial<ReviewSettings> }): ReviewSettings => ({
  ...USUAL_REVIEW,
  ...settings.review,
})
