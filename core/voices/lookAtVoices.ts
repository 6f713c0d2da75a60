import { measureVoices, type AllVoices } from './measureVoices'
import { mostAnswered, type Echo } from './mostAnswered'
import { readNetwork, type Network } from './network'
import { localClock, rhythmOf, type DayOfTalk } from './rhythm'
import type { TalkEntry } from './talkEntry'

/** Everything that is looked at, as plain data: it can be handed to a thread. */
export interface VoicesIn {
  readonly talkEntries: readonly TalkEntry[] // within the span
  readonly before: readonly TalkEntry[] // within the span of the same length before it
  readonly people: readonly string[] // students who are meant
  readonly staff: readonly string[]
  readonly timeZone: string
  readonly days: readonly string[] // of the span, YYYY-MM-DD
  readonly due: ReadonlyArray<readonly [activityId: string, personId: string, at: number]> // when the first contribution was due
  readonly answeredElsewhere: readonly string[]
  readonly most: number // contributions listed as most answered, and as unanswered
}
export interface VoicesOut {
  readonly all: AllVoices
  readonly before: ReadonlyArray<{ readonly contributions: number; readonly words: number }> // by person, in their order
  readonly network: Network
  readonly rhythm: readonly DayOfTalk[]
  readonly mostAnswered: readonly Echo[]
  readonly unanswered: readonly string[] // of students, the longest waiting first
}

/** All figures of Voices for one span, from what was said in it. */
export function lookAtVoices(look: VoicesIn): VoicesOut {
  const clock = localClock(look.timeZone)
  const dues = new Map(look.due.map(([activityId, personId, at]) => [`${activityId} ${personId}`, at]))
  const circle = {
    people: look.people,
    staff: new Set(look.staff),
    dayOf: (at: number) => clock(at).day,
    dueOf: (activityId: string, personId: string) => dues.get(`${activityId} ${personId}`) ?? null,
    answeredElsewhere: new Set(look.answeredElsewhere),
  }
  const all = measureVoices(look.talkEntries, circle)
  const meant = new Set(look.people)
  const echoes = mostAnswered(
    look.talkEntries.filter(s => meant.has(s.authorId) || circle.staff.has(s.authorId)),
    Infinity,
  )
  const answered = new Set([...look.answeredElsewhere, ...echoes.map(e => e.id)])
  const mine = new Set(look.talkEntries.filter(s => meant.has(s.authorId)).map(s => s.id))
  return {
    all,
    before: measureVoices(look.before, circle).voices.map(({ contributions, words }) => ({
      contributions,
      words,
    })),
    network: readNetwork(look.talkEntries, [...look.people, ...look.staff]),
    rhythm: rhythmOf(
      look.talkEntries.filter(s => meant.has(s.authorId)).map(s => s.at),
      look.timeZone,
      look.days,
    ),
    mostAnswered: echoes.filter(e => mine.has(e.id)).slice(0, look.most),
    unanswered: look.talkEntries
      .filter(s => mine.has(s.id) && !answered.has(s.id))
      .sort((a, b) => a.at - b.at)
      .slice(0, look.most)
      .map(s => s.id),
  }
}
