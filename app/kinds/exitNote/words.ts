import type { KindWords } from '../kindWords'

export const exitNote: KindWords = {
  name: 'Exit note',
  note: 'one question, a short answer',
  together: ', each for staff alone',
}
