import type { PhaseName } from '../schedule'
import type { ContributionType } from '#core/contributing/contribution'

/** A participation requirement that can be checked. Words are a minimum each; `due` names the phase whose end is the due time. */
export type ExpectationRule =
  | { readonly kind: 'entries'; readonly need: number; readonly minWords: number; readonly due: PhaseName }
  | {
      readonly kind: 'weeklyEntries'
      readonly need: number
      readonly minWords: number
      readonly due: PhaseName
    } // `need` in every week of the phase
  | { readonly kind: 'replies'; readonly need: number; readonly minWords: number; readonly due: PhaseName }
  | { readonly kind: 'prompts'; readonly need: number; readonly minWords: number; readonly due: PhaseName } // `need` answers to each prompt or question there is
  | {
      readonly kind: 'holds'
      readonly what: 'source' | 'figure'
      readonly need: number
      readonly due: PhaseName
    } // contributions with a linked source, or with a picture
  | {
      readonly kind: 'reviews'
      readonly need: number
      readonly minWords: number
      readonly due: PhaseName
      readonly everyone?: boolean // of everyone in one's group, however many they are; `need` is their usual number
    } // reviews of others' work, or of teammates, handed in
  // pages of a wiki that they claimed, so much of each written by them
  | { readonly kind: 'ownPages'; readonly need: number; readonly minWords: number; readonly due: PhaseName }
  | { readonly kind: 'revisions'; readonly need: number; readonly due: PhaseName } // claimed pages they worked on again after a comment
  // notes in the margin that ask
  | { readonly kind: 'questions'; readonly need: number; readonly minWords: number; readonly due: PhaseName }
  // different pages or sections of a text with a note of theirs
  | { readonly kind: 'parts'; readonly need: number; readonly due: PhaseName }
  | { readonly kind: 'activeDays'; readonly need: number; readonly due: PhaseName }

/** A contribution as the rules see it. Only what is shown is passed in: drafts, withdrawn and waiting ones never count. */
export interface CountedContribution {
  readonly id: string
  readonly type: ContributionType
  readonly shownAt: Date
  readonly words: number
  readonly answers: { readonly personId: string; readonly isClassmate: boolean } | null // author of what it answers
  readonly prompt?: string | null // the prompt or question it is written to
  readonly sources?: number // addresses it links to
  readonly figures?: number // pictures that came with it
  // of a page's version: whether its author claimed the page, and somebody else had commented on it before
  readonly page?: { readonly id: string; readonly claimed: boolean; readonly afterComment: boolean }
  // of a note in a margin: on which page or section, and whether that is among those that are set
  readonly note?: { readonly asks: boolean; readonly part: number; readonly isSet: boolean }
  readonly notInWords?: boolean // handed in as a file, a link or on paper: a minimum of words does not apply
}

export interface ExpectationContext {
  readonly personId: string
  readonly timeZone: string
  readonly entryType: ContributionType
  readonly prompts?: readonly string[] // those a rule about prompts asks about
  readonly weeks?: ReadonlyArray<{ readonly startsAt: Date; readonly endsAt: Date }> // those that weekly rules ask about
}

export interface ExpectationResult {
  readonly have: number // 0..need: what counts, no more than is asked for
  readonly need: number
  readonly met: boolean
  readonly metAt: Date | null // when the last one needed was shown
  readonly contributionIds: readonly string[] // those that met it, in time order, at most `need`
  readonly missing: number // how many are still to go
}

export const EXPECTATION_KINDS = [
  'entries',
  'weeklyEntries',
  'prompts',
  'replies',
  'reviews',
  'holds',
  'ownPages',
  'revisions',
  'questions',
  'parts',
  'activeDays',
] as const satisfies ReadonlyArray<ExpectationRule['kind']>
