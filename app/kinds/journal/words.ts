import type { KindWords } from '../kindWords'

export const journal: KindWords = {
  name: 'Journal',
  note: 'entries between student and staff',
  together: ', each with staff',
}
