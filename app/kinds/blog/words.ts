import type { KindWords } from '../kindWords'

export const blog: KindWords = {
  name: 'Blog',
  note: 'entries over time, with comments',
  together: ', who read one another',
}
