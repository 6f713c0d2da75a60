import { describe, expect, it } from 'vitest'
import { voiceByWeek } from './byWeek'
import type { TalkEntry } from './talkEntry'

const said = (authorId: string, at: number, words: number): TalkEntry => ({
  id: `${authorId}${at}`,
  authorId,
  activityId: 'x',
  parentId: null,
  answersId: null,
  depth: 0,
  answersAt: null,
  at,
  words,
  sentences: 1,
  syllables: 1,
})

describe('a voice by week', () => {
  it('has its own words beside the median of everyone, the silent among them; what lies outside is left out', () => {
    const talkEntries = [
      said('a', 0, 10),
      said('a', 9, 5),
      said('b', 3, 40),
      said('a', 10, 7),
      said('x', 1, 900),
      said('a', -1, 99),
      said('a', 20, 99),
    ]
    expect(voiceByWeek(talkEntries, 'a', ['a', 'b', 'c'], [0, 10, 20])).toEqual([
      { contributions: 2, words: 15, typicalWords: 15 },
      { contributions: 1, words: 7, typicalWords: 0 },
    ])
  })
})
