import type { ContributionType } from '#core/contributing/contribution'
import type { TermDetail } from './lexicon/lexiconSettings'
import type { StoredNote } from './reading/storedNote'
import type { ReviewContent } from './review/reviewContent'
import type { SubmissionMethod } from './review/reviewSettings'

/** What begins something: it may have a title, and what answers a question of staff can take up a passage of it. */
interface Opening {
  readonly title?: string | undefined
  readonly takesUp?: TakenUp
}

/** What answers something: a passage of it can be taken up. */
interface Answering {
  readonly takesUp?: TakenUp
  readonly imported?: true // taken in from a file: it counts for nothing
}

/** The words that an answer is about, with what stood around them in the text answered. */
export interface TakenUp {
  readonly contributionId: string
  readonly exact: string
  readonly prefix: string
  readonly suffix: string
}

/** An entry of a journal or blog, an answer to an exit note, or a work that is reviewed. */
interface Entry extends Opening {
  readonly handIn?: SubmittedWork
  readonly sample?: Sample
}

/** How a work came in, for which group, and who ticked that it came on paper. */
interface SubmittedWork {
  readonly way: SubmissionMethod
  readonly groupId?: string
  readonly tickedBy?: string
}

/** A work to practise on: the instructor's own scores, in hundredths, and why, by criterion. */
interface Sample {
  readonly points: Readonly<Record<string, number>>
  readonly why: Readonly<Record<string, string>>
}

/** What a contribution holds besides its words, by its type; anything may be missing while it is a draft. */
export interface ContributionDetails {
  readonly post: Opening
  readonly reply: Answering
  readonly entry: Entry
  readonly comment: Answering
  readonly note: { readonly note?: StoredNote; readonly imported?: true }
  readonly question: Opening
  readonly pageVersion: { readonly page?: { readonly id: string; readonly base: number } } // the version a draft is written from
  readonly review: { readonly review?: ReviewContent }
  readonly term: { readonly title?: string | undefined; readonly term?: TermDetail }
}
export type ContributionDetail = ContributionDetails[ContributionType]

/** A contribution's type with what is stored under it. */
export interface Detailed {
  readonly type: ContributionType
  readonly detail: ContributionDetail
}

/** The detail of a contribution of the type asked for; empty of any other. */
export function detailOf<T extends ContributionType>(
  { type, detail }: Detailed,
  asked: T,
): Partial<ContributionDetails[T]> {
  return type === asked ? (detail as ContributionDetails[T]) : {} // what is stored under a type is of that type
}

/** The title of what may have one. */
export const titleOf = ({ detail }: Pick<Detailed, 'detail'>): string | null =>
  ('title' in detail ? detail.title : null) ?? null

/** The passage that an answer takes up. */
export const takenUpBy = ({ detail }: Pick<Detailed, 'detail'>): TakenUp | null =>
  ('takesUp' in detail ? detail.takesUp : null) ?? null
