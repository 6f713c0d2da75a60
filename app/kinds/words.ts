import type { ActivityKind } from '#core/kinds/kind'
import { blog } from './blog/words'
import { discussion } from './discussion/words'
import { exitNote } from './exitNote/words'
import { journal } from './journal/words'
import { lexicon } from './lexicon/words'
import { reading } from './reading/words'
import { review } from './review/words'
import { wiki } from './wiki/words'
import type { KindWords } from './kindWords'

/** Names and words of every kind, without its components. */
export const KIND_WORDS: Readonly<Record<ActivityKind, KindWords>> = {
  discussion,
  journal,
  blog,
  wiki,
  reading,
  review,
  lexicon,
  exitNote,
}

/** The name of a kind in the middle of a sentence. */
export const kindInSentence = (kind: ActivityKind): string => KIND_WORDS[kind].name.toLowerCase()
