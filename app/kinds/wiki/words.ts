import type { KindWords } from '../kindWords'

export const wiki: KindWords = {
  name: 'Wiki',
  note: 'pages written together',
  together: ', who write together',
  inGroups: ', each group its own pages',
}
