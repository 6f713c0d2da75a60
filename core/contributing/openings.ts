import { KINDS } from './kinds'
import type { ActivityKind } from './kinds/kind'
import type { TalkSettings } from './talkSettings'

/** Whom a thread reaches: everyone who takes part, staff and whoever began it, or staff and the author of each text alone. */
export function reachOf(
  kind: ActivityKind,
  opening: TalkSettings['opening'],
  openToClass: boolean,
): 'class' | 'thread' | 'own' {
  if (kind === 'review' || kind === 'wiki') return 'own' // they have rooms of their own, with their own policy
  if (KINDS[kind].readBy === 'class') return 'class'
  if (kind !== 'journal' || opening === 'staff') return 'thread' // whatever was opened before closes again with the setting
  return opening === 'class' || openToClass ? 'class' : 'thread'
}
