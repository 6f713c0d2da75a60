import { describe, expect, it } from 'vitest'
import { lackSentence } from './lackSentence'

const asked = {
  criteria: [
    { id: 'a', title: 'Sources' },
    { id: 'b', title: 'Structure' },
  ],
  questions: [{ id: 'q', text: 'What would you ask?' }],
}

describe('what a review still lacks', () => {
  it('is said by name, with how many words are there, and counted where it is long', () => {
    const points = { kind: 'points', id: 'a', have: 0, need: 0 } as const
    const remark = { kind: 'remark', id: 'b', have: 4, need: 10 } as const
    const answer = { kind: 'answer', id: 'q', have: 0, need: 5 } as const
    expect(lackSentence([points], asked)).toBe('Still asked for: points for “Sources”.')
    expect(lackSentence([remark, answer], asked)).toBe(
      'Still asked for: a remark on “Structure” (4 of 10 words) and an answer to “What would you ask?”.',
    )
    expect(lackSentence([points, remark, answer, points, remark], asked)).toMatch(/two more things\.$/)
  })
})
