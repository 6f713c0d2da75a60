import { blog } from './blog'
import { discussion } from './discussion'
import { exitNote } from './exitNote'
import { journal } from './journal'
import type { ActivityKind, KindDefinition } from './kind'
import { lexicon } from './lexicon'
import { reading } from './reading'
import { review } from './review'
import { wiki } from './wiki'

/** The one registry of kinds: a new kind is its file and its line here. */
export const KINDS: Readonly<Record<ActivityKind, KindDefinition>> = {
  discussion,
  journal,
  blog,
  wiki,
  reading,
  review,
  lexicon,
  exitNote,
}
