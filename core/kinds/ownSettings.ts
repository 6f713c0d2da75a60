import { USUAL_TALK, type TalkSettings } from '#core/contributing/talkSettings'
import { KINDS } from '.'
import { EVERY_TALK, OWN_PARTS, type ActivityKind } from './kind'

type TalkKey = keyof TalkSettings
const IN_EVERY_TALK: ReadonlySet<string> = new Set(EVERY_TALK)

/** Names of the settings that not every kind has, by kind: settings of its talk, and the part that is its alone. */
const namesOf = (kind: ActivityKind): readonly string[] => {
  const { ownPart, ownTalk } = KINDS[kind]
  return [...ownTalk, ...(ownPart ? [ownPart] : [])]
}

/** What an activity keeps of all that can be set: what every kind has, and what its own kind has. */
export function settingsOfKind<All extends object>(kind: ActivityKind, all: All): Partial<All> {
  const own = namesOf(kind)
  const others = new Set<string>([
    ...(Object.keys(USUAL_TALK) as TalkKey[]).filter(key => !IN_EVERY_TALK.has(key)),
    ...OWN_PARTS,
  ])
  return pick(all, name => own.includes(name) || !others.has(name))
}

/** Of all that can be set, what only some kinds have, this one among them: what is lost when it becomes another. */
export const ownSettings = <All extends object>(kind: ActivityKind, all: All): Partial<All> =>
  pick(all, name => namesOf(kind).includes(name))

const pick = <All extends object>(all: All, isWanted: (name: string) => boolean): Partial<All> =>
  Object.fromEntries(Object.entries(all).filter(([name]) => isWanted(name))) as Partial<All> // some of its entries
