import { KINDS } from '#core/kinds'
import type { ActivityKind } from '#core/kinds/kind'
import type { TalkSettings } from './talkSettings'

/** Whom a thread reaches: everyone who takes part, staff and whoever began it, or staff and the author of each text alone. */
export function reachOf(
  kind: ActivityKind,
  opening: TalkSettings['opening'],
  openToClass: boolean,
): 'class' | 'thread' | 'own' {
  const { reach } = KINDS[kind]
  if (reach !== 'asOpened') return reach
  if (opening === 'staff') return 'thread' // whatever was opened before closes again with the setting
  return opening === 'class' || openToClass ? 'class' : 'thread'
}
