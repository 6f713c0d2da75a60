import { describe, expect, it } from 'vitest'
import { detailOf, takenUpBy, titleOf } from './contributionDetail'

const takesUp = { contributionId: 'a', exact: 'slack water', prefix: 'at ', suffix: '.' }
const term = { term: 'Fairway', forms: [], category: null, sources: '', whole: true }

describe('what a contribution holds besides its words', () => {
  it('is read by its type alone', () => {
    const written = { type: 'term', detail: { title: 'Fairway', term } } as const
    expect(detailOf(written, 'term').term).toEqual(term)
    expect(detailOf(written, 'note')).toEqual({})
    expect(detailOf({ type: 'entry', detail: { handIn: { way: 'paper' } } }, 'entry').handIn?.way).toBe(
      'paper',
    )
  })

  it('has a title and a passage where its type can have them', () => {
    expect(titleOf({ detail: { title: 'Lights on the pier' } })).toBe('Lights on the pier')
    expect(titleOf({ detail: { title: undefined } })).toBeNull()
    expect(titleOf({ detail: {} })).toBeNull()
    expect(takenUpBy({ detail: { takesUp } })).toEqual(takesUp)
    expect(takenUpBy({ detail: { page: { id: 'p', base: 2 } } })).toBeNull()
  })
})
