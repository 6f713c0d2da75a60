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
export function analyseVoices(input: VoicesIn): VoicesOut {
  const clock = localClock(input.timeZone)
  const dues = new Map(input.due.map(([activityId, personId, at]) => [`${activityId} ${personId}`, at]))
  const population = {
    people: input.people,
    staff: new Set(input.staff),
    dayOf: (at: number) => clock(at).day,
    dueOf: (activityId: string, personId: string) => dues.get(`${activityId} ${personId}`) ?? null,
    answeredElsewhere: new Set(input.answeredElsewhere),
  }
  const all = measureVoices(input.talkEntries, population)
  const meant = new Set(input.people)
  const echoes = mostAnswered(
    input.talkEntries.filter(s => meant.has(s.authorId) || population.staff.has(s.authorId)),
    Infinity,
  )
  const answered = new Set([...input.answeredElsewhere, ...echoes.map(e => e.id)])
  const mine = new Set(input.talkEntries.filter(s => meant.has(s.authorId)).map(s => s.id))
  return {
    all,
    before: measureVoices(input.before, population).voices.map(({ contributions, words }) => ({
      contributions,
      words,
    })),
    network: readNetwork(input.talkEntries, [...input.people, ...input.staff]),
    rhythm: rhythmOf(
      input.talkEntries.filter(s => meant.has(s.authorId)).map(s => s.at),
      input.timeZone,
      input.days,
    ),
    mostAnswered: echoes.filter(e => mine.has(e.id)).slice(0, input.most),
    unanswered: input.talkEntries
      .filter(s => mine.has(s.id) && !answered.has(s.id))
      .sort((a, b) => a.at - b.at)
      .slice(0, input.most)
      .map(s => s.id),
  }
}
