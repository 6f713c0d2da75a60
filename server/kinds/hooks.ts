import type { ActivityKind } from '#core/kinds/kind'
import type { KindHooks } from '#server/services/contributing'
import { lexicon } from './lexicon/hooks'
import { reading } from './reading/hooks'
import { review } from './review/hooks'
import { wiki } from './wiki/hooks'

/** Of a kind in which everything is done as in any talk. */
const AS_ANY_TALK: KindHooks = {}

/** What goes otherwise on the server, by kind: a new kind has its line here, and the compiler asks for it. */
export const KIND_HOOKS: Readonly<Record<ActivityKind, KindHooks>> = {
  discussion: AS_ANY_TALK,
  journal: AS_ANY_TALK,
  blog: AS_ANY_TALK,
  exitNote: AS_ANY_TALK,
  wiki,
  reading,
  review,
  lexicon,
}
