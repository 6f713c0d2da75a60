import type { ActivityKind } from '#core/contributing/kinds/kind'
import type { Standing } from '#core/standing/standing'

export const KIND_WORDS: Readonly<Record<ActivityKind, string>> = {
  discussion: 'Discussion',
  journal: 'Journal',
  blog: 'Blog',
  wiki: 'Wiki',
  reading: 'Reading',
  review: 'Peer review',
  lexicon: 'Lexicon',
  exitNote: 'Exit note',
}

export const STANDING_WORDS: Readonly<Record<Standing, string>> = {
  nothing: 'nothing yet',
  underWay: 'under way',
  ready: 'ready',
  held: 'held',
  returned: 'returned',
}
