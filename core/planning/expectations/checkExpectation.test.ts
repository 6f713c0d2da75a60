import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { checkExpectation } from './checkExpectation'
import type { CountedContribution, ExpectationRule } from './rule'

const context = { personId: 'liv', timeZone: 'Europe/Oslo', entryType: 'post' as const }
const at = (hour: number) => new Date(Date.UTC(2026, 9, 12, hour))
const reply = (
  id: string,
  to: string,
  words: number,
  hour: number,
  isClassmate = true,
): CountedContribution => ({
  id,
  type: 'reply',
  shownAt: at(hour),
  words,
  answers: { personId: to, isClassmate },
})
const post = (id: string, words: number, hour: number): CountedContribution => ({
  id,
  type: 'post',
  shownAt: at(hour),
  words,
  answers: null,
})
const replies: ExpectationRule = { kind: 'replies', need: 3, minWords: 60, due: 'respond' }
const opening: ExpectationRule = { kind: 'entries', need: 1, minWords: 200, due: 'write' }

describe('an expectation', () => {
  it('is nothing yet for an empty record', () => {
    expect(checkExpectation(replies, [], context)).toEqual({
      have: 0,
      need: 3,
      met: false,
      metAt: null,
      contributionIds: [],
      missing: 3,
    })
  })
  it('takes exactly the minimum of words and not one less', () => {
    expect(checkExpectation(opening, [post('a', 199, 1)], context).met).toBe(false)
    expect(checkExpectation(opening, [post('a', 200, 1)], context).met).toBe(true)
  })
  it('counts different classmates: a second answer to one adds nothing, nor do oneself and the instructor', () => {
    const result = checkExpectation(
      replies,
      [
        reply('a', 'rasmus', 80, 1),
        reply('b', 'rasmus', 90, 2),
        reply('c', 'liv', 90, 3),
        reply('d', 'ines', 90, 4, false),
        reply('e', 'kadri', 60, 5),
      ],
      context,
    )
    expect(result).toMatchObject({ have: 2, missing: 1, met: false, contributionIds: ['a', 'e'] })
  })
  it('is met when the last one needed was shown, whatever the order of the list', () => {
    const list = [
      reply('c', 'kadri', 60, 9),
      reply('a', 'rasmus', 60, 1),
      reply('d', 'oona', 60, 12),
      reply('b', 'femke', 60, 4),
    ]
    expect(checkExpectation(replies, list, context)).toMatchObject({
      met: true,
      metAt: at(9),
      contributionIds: ['a', 'b', 'c'],
    })
  })
  it('counts local days, not UTC days', () => {
    const rule: ExpectationRule = { kind: 'activeDays', need: 2, due: 'respond' }
    expect(checkExpectation(rule, [post('a', 5, 9), post('b', 5, 21)], context).have).toBe(1)
    expect(checkExpectation(rule, [post('a', 5, 9), post('b', 5, 22)], context).have).toBe(2)
  })
  it('wants each prompt answered, and takes no second answer to one for another', () => {
    const rule: ExpectationRule = { kind: 'prompts', need: 1, minWords: 50, due: 'write' }
    const to = (id: string, prompt: string, words: number, hour: number): CountedContribution => ({
      ...post(id, words, hour),
      prompt,
    })
    const prompts = { ...context, prompts: ['p1', 'p2'] }
    expect(
      checkExpectation(rule, [to('a', 'p1', 60, 1), to('b', 'p1', 80, 2), to('c', 'p2', 49, 3)], prompts),
    ).toMatchObject({ have: 1, need: 2, met: false })
    expect(checkExpectation(rule, [to('a', 'p1', 60, 1), to('d', 'p2', 50, 4)], prompts)).toMatchObject({
      have: 2,
      met: true,
      metAt: at(4),
    })
    expect(() => checkExpectation(rule, [], context)).toThrow(RangeError)
  })
  it('counts what links to a source, and what came with a picture, apart', () => {
    const list = [{ ...post('a', 5, 1), sources: 2 }, { ...post('b', 5, 2), figures: 1 }, post('c', 5, 3)]
    expect(
      checkExpectation({ kind: 'holds', what: 'source', need: 2, due: 'write' }, list, context),
    ).toMatchObject({ have: 1, contributionIds: ['a'] })
    expect(
      checkExpectation({ kind: 'holds', what: 'figure', need: 1, due: 'write' }, list, context),
    ).toMatchObject({ met: true, contributionIds: ['b'] })
  })
  it('counts a claimed page once its words are enough together, and revisions after a comment by page', () => {
    const version = (
      id: string,
      page: string,
      words: number,
      hour: number,
      claimed = true,
      afterComment = false,
    ): CountedContribution => ({
      id,
      type: 'pageVersion',
      shownAt: at(hour),
      words,
      answers: null,
      page: { id: page, claimed, afterComment },
    })
    const list = [
      version('a', 'moles', 120, 1),
      version('b', 'moles', 90, 2),
      version('c', 'oath', 400, 3, false),
      version('d', 'moles', 0, 4, true, true),
      version('e', 'moles', 5, 5, true, true),
      version('f', 'stair', 199, 6),
    ]
    const own: ExpectationRule = { kind: 'ownPages', need: 1, minWords: 200, due: 'write' }
    expect(checkExpectation(own, list, { ...context, entryType: 'pageVersion' })).toMatchObject({
      have: 1,
      met: true,
      metAt: at(2),
      contributionIds: ['b'],
    })
    expect(
      checkExpectation({ ...own, need: 2 }, list, { ...context, entryType: 'pageVersion' }),
    ).toMatchObject({ have: 1, met: false })
    expect(
      checkExpectation(
        { ...own, minWords: 0 },
        [version('a', 'moles', 0, 1), version('b', 'moles', 3, 2)],
        context,
      ),
    ).toMatchObject({ met: true, metAt: at(1) })
    expect(checkExpectation({ kind: 'revisions', need: 1, due: 'revise' }, list, context)).toMatchObject({
      met: true,
      metAt: at(4),
    })
    expect(checkExpectation({ kind: 'revisions', need: 2, due: 'revise' }, list, context)).toMatchObject({
      have: 1,
    })
  })
  it('counts notes, questions and different pages of what is set, and no notes beside it', () => {
    const note = (
      id: string,
      part: number,
      hour: number,
      asks = false,
      isSet = true,
    ): CountedContribution => ({
      id,
      type: 'note',
      shownAt: at(hour),
      words: 20,
      answers: null,
      note: { asks, part, isSet },
    })
    const list = [
      note('a', 3, 1),
      note('b', 3, 2, true),
      note('c', 9, 3, true, false),
      note('d', 5, 4, true),
      { ...note('e', 5, 5, true), words: 3 },
    ]
    const reading = { ...context, entryType: 'note' as const }
    expect(
      checkExpectation({ kind: 'entries', need: 4, minWords: 10, due: 'write' }, list, reading),
    ).toMatchObject({ have: 3, contributionIds: ['a', 'b', 'd'] })
    expect(
      checkExpectation({ kind: 'questions', need: 2, minWords: 10, due: 'write' }, list, reading),
    ).toMatchObject({ met: true, metAt: at(4), contributionIds: ['b', 'd'] })
    expect(checkExpectation({ kind: 'parts', need: 3, due: 'write' }, list, reading)).toMatchObject({
      have: 2,
      contributionIds: ['a', 'd'],
    })
  })
  it('refuses a rule that asks for nothing', () => {
    expect(() => checkExpectation({ ...opening, need: 0 }, [], context)).toThrow(RangeError)
  })
  it('agrees with a plain recount, and never falls when something is added', () => {
    const anyReply = fc.record({
      to: fc.constantFrom('a', 'b', 'c', 'd', 'liv'),
      words: fc.integer({ min: 0, max: 120 }),
      hour: fc.integer({ min: 0, max: 23 }),
    })
    fc.assert(
      fc.property(fc.array(anyReply, { maxLength: 12 }), anyReply, (list, more) => {
        const make = (r: typeof more, i: number) => reply(String(i).padStart(3, '0'), r.to, r.words, r.hour)
        const before = checkExpectation(replies, list.map(make), context)
        const people = new Set(list.filter(r => r.words >= 60 && r.to !== 'liv').map(r => r.to))
        expect(before.have).toBe(Math.min(3, people.size))
        expect(checkExpectation(replies, [...list, more].map(make), context).have).toBeGreaterThanOrEqual(
          before.have,
        )
      }),
    )
  })
})
