import { describe, expect, it } from 'vitest'
import type { OneVoice } from '#shared/voices/student'
import { presenceSentence, whosePresence } from './presenceSentence'
import { contactSentence, talkSentence } from './studentSentences'

const figures = { all: 24, reached: 20, overdue: 2, limit: 14, from: 'you' }

describe('who has had a word of their own', () => {
  it('is said with what there is to do', () => {
    expect(presenceSentence(figures).join('')).toBe(
      '20 of 24 students have had a word of their own from you this term; two have had nothing for 14 days or longer.',
    )
  })
  it('is said where nobody is overdue, nobody was reached, or nobody is there', () => {
    expect(presenceSentence({ ...figures, overdue: 0 })[1]).toMatch(/^; nobody has been without one/)
    expect(presenceSentence({ ...figures, reached: 0 })).toEqual([
      'None of 24 students has had a word of their own from you yet.',
      '',
    ])
    expect(presenceSentence({ ...figures, all: 0, reached: 0 })[0]).toBe('Nobody takes part yet.')
  })
  it.each([
    ['all', 'those who teach'],
    ['i', 'you'],
    ['h', 'Henrik'],
    ['gone', ''],
  ])('is of %s: %s', (by, words) => {
    const teachers = [
      { id: 'i', name: 'Ines', isMe: true },
      { id: 'h', name: 'Henrik', isMe: false },
    ]
    expect(whosePresence({ by, teachers })).toBe(words)
  })
})

describe('one student', () => {
  const fromMe = { acts: 2, lastAt: '2026-10-12T08:00:00Z', gapDays: 2, longestGapDays: 9 }
  // only what the sentences read
  const student = (voice: object, words: number | null = 100) =>
    ({
      voice: {
        givenName: 'Paz',
        contributions: 3,
        words: 130,
        answered: 2,
        answeredBy: 1,
        quiet: '',
        fromMe,
        ...voice,
      },
      typical: { words },
    }) as unknown as OneVoice

  it('has said something beside what is usual, or as much, or nothing', () => {
    expect(talkSentence(student({}))).toBe(
      'Three contributions, 130 words, more than is usual here; answered two classmates, answered by one.',
    )
    expect(talkSentence(student({ words: 100 }))).toContain('about what is usual')
    expect(talkSentence(student({ words: 75 }))).toContain('less than is usual')
    expect(talkSentence(student({}, null))).toContain('130 words; answered')
    expect(talkSentence(student({ contributions: 0, quiet: 'has read everything' }))).toBe(
      'Paz has said nothing yet; has read everything.',
    )
  })
  it('has heard from the reader so many times, or not yet', () => {
    const day = () => 'Mon 12 Oct'
    expect(contactSentence(student({}), day)).toBe(
      'Heard from you twice, last on Mon 12 Oct, two days ago; the longest time without was nine days.',
    )
    expect(contactSentence(student({ fromMe: { ...fromMe, acts: 1, gapDays: 0 } }), day)).toContain(
      'once, on Mon 12 Oct, today',
    )
    expect(contactSentence(student({ fromMe: { ...fromMe, acts: 0 } }), day)).toContain(
      'nothing from you alone',
    )
  })
})
