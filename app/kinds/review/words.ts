import type { KindWords } from '../kindWords'

export const review: KindWords = {
  name: 'Peer review',
  note: 'drafts read without names',
  together: ', who read one another without names',
}
