import type { TalkSettings } from '#core/contributing/talkSettings'
import { blog } from './blog/definition'
import { discussion } from './discussion/definition'
import { exitNote } from './exitNote/definition'
import { journal } from './journal/definition'
import { ACTIVITY_KINDS, type ActivityKind, type KindDefinition } from './kind'
import { lexicon } from './lexicon/definition'
import { reading } from './reading/definition'
import { review } from './review/definition'
import { wiki } from './wiki/definition'

/** The one registry of kinds: a new kind is its folder and its line here. */
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

/** Whether classmates' entries are there to be read: of kinds the class reads, and of journals that are open to it. */
export const readsAlong = (kind: ActivityKind, { opening }: Pick<TalkSettings, 'opening'>): boolean =>
  KINDS[kind].readBy === 'class' || (KINDS[kind].reach === 'asOpened' && opening === 'class')

/** Kinds of which something holds, for questions to the database. */
export const kindsWhere = (holds: (definition: KindDefinition) => boolean): ActivityKind[] =>
  ACTIVITY_KINDS.filter(kind => holds(KINDS[kind]))
