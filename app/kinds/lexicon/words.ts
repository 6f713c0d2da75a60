import type { KindWords } from '../kindWords'

export const lexicon: KindWords = {
  name: 'Lexicon',
  note: 'the seminar’s own terms',
  together: ' with one lexicon',
}
