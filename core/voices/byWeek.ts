import type { TalkEntry } from './talkEntry'
import { median } from './share'

export interface WeekOfVoice {
  readonly contributions: number
  readonly words: number
  readonly typicalWords: number
}

/**
 * One person week by week, beside what is typical: the median of everyone's words in that week, the silent among them.
 *
 * @param starts beginnings of the weeks and, last, the end; milliseconds since 1970
 */
export function voiceByWeek(
  talkEntries: readonly TalkEntry[],
  personId: string,
  people: readonly string[],
  starts: readonly number[],
): WeekOfVoice[] {
  const weeks = starts.slice(0, -1).map(() => ({ own: 0, words: new Map(people.map(id => [id, 0])) }))
  for (const s of talkEntries) {
    const week = weeks[starts.findLastIndex(start => start <= s.at)]
    if (!week || !week.words.has(s.authorId)) continue
    week.words.set(s.authorId, week.words.get(s.authorId)! + s.words)
    if (s.authorId === personId) week.own++
  }
  return weeks.map(w => ({
    contributions: w.own,
    words: w.words.get(personId) ?? 0,
    typicalWords: median([...w.words.values()]) ?? 0,
  }))
}
