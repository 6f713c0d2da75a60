import type { ActivityKind } from '#core/contributing/kinds/kind'
import type { Standing } from '#core/contributing/standing'

export const KIND_WORDS: Readonly<Record<ActivityKind, string>> = {
  discussion: 'Discussion', journal: 'Journal', blog: 'Blog', wiki: 'Wiki', reading: 'Reading', review: 'Peer review', lexicon: 'Lexicon',
}

/** What students add first in an activity of a kind. */
export const ENTRY_WORDS: Readonly<Record<ActivityKind, string>> = {
  discussion: 'opening posts', journal: 'entries', blog: 'entries', wiki: 'pages', reading: 'notes', review: 'drafts', lexicon: 'terms',
}

export const STANDING_WORDS: Readonly<Record<Standing, string>> = {
  nothing: 'nothing yet', underWay: 'under way', ready: 'ready', held: 'held', returned: 'returned',
}
