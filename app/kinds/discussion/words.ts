import type { KindWords } from '../kindWords'

export const discussion: KindWords = {
  name: 'Discussion',
  note: 'posts and replies',
  together: ' in one conversation',
}
