import { sameTerm } from './termFinder'

interface Known {
  readonly id: string
  readonly term: string
  readonly forms: readonly string[]
}

/** The term of a lexicon that a word is already: the term itself, or one of its other forms. `own`: the one that is being changed. */
export function definedAs<T extends Known>(word: string, terms: readonly T[], own: string | null): T | null {
  const wanted = sameTerm(word)
  if (wanted === '') return null
  const others = terms.filter(t => t.id !== own)
  return (
    others.find(t => sameTerm(t.term) === wanted) ??
    others.find(t => t.forms.some(f => sameTerm(f) === wanted)) ??
    null
  )
}
