import type { KindWords } from '../kindWords'

export const reading: KindWords = {
  name: 'Reading',
  note: 'notes in the margin of a text',
  together: ' in one margin',
}
