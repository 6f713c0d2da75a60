/** How a seminar keeps its lexicon; all of it can be changed while it grows. Approval is a setting of every talk. */
export interface LexiconSettings {
  readonly duplicates: 'refused' | 'allowed' // whether one term can be defined more than once
  readonly categories: readonly string[]
  readonly linked: boolean // whether terms light up where they are used
}

export const USUAL_LEXICON: LexiconSettings = { duplicates: 'refused', categories: [], linked: true }

export const lexiconOf = (settings: { readonly lexicon?: Partial<LexiconSettings> }): LexiconSettings => ({
  ...USUAL_LEXICON,
  ...settings.lexicon,
})

/** What a term is besides its definition. */
export interface TermDetail {
  readonly term: string
  readonly forms: readonly string[] // other forms it is known by in a text
  readonly category: string | null
  readonly sources: string // where it is from, as its author says
  readonly whole: boolean // known as a whole word only
}
