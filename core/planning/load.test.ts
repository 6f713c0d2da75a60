import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { ExpectationRule } from './expectations/rule'
import { minutesToGo, USUAL_PACE, wordsToRead, wordsToWrite } from './load'
import { loadByWeek, loadInAll, type LoadOfActivity } from './loadByWeek'
import { sortPeople, type Audience } from './takingPart'
import { weekOf, type Term } from './week'
import { weeklySpans } from './weeklySpans'

const opening = { kind: 'entries', need: 1, minWords: 240, due: 'write' } as const
const replies = { kind: 'replies', need: 3, minWords: 60, due: 'respond' } as const
const reviews = { kind: 'reviews', need: 3, minWords: 100, due: 'review' } as const
const term: Term = {
  firstDay: '2026-09-07',
  weeks: 16,
  timeZone: 'Europe/Amsterdam',
  breaks: [{ week: 8, title: 'Break' }],
}
const at = (day: number, hour = 12) => new Date(Date.UTC(2026, 8, 7 + day, hour))

describe('the words asked for', () => {
  it('are written by each, and read of everybody whose entries are there to be read', () => {
    const part = { sort: 0, people: 23, reads: 22, teammates: 0 }
    expect([opening, replies].map(rule => wordsToWrite(rule, part))).toEqual([240, 180])
    expect([opening, replies].map(rule => wordsToRead(rule, [opening, replies], part))).toEqual([5280, 0])
  })
  it('are those of drafts for who reviews them, and of as many reviews as there are teammates', () => {
    const part = { sort: 0, people: 4, reads: 0, teammates: 3 }
    expect(wordsToRead(reviews, [opening, reviews], part)).toBe(720)
    const everyone = { ...reviews, need: 9, everyone: true }
    expect([wordsToWrite(everyone, part), wordsToRead(everyone, [everyone], part)]).toEqual([300, 0])
  })
  it('say how long what is missing takes', () => {
    expect(minutesToGo(replies, 2)).toBe(10)
    expect(minutesToGo({ kind: 'activeDays', need: 2, due: 'respond' }, 1)).toBe(0)
  })
})

describe('the load of a plan', () => {
  it('loses nothing after the last week, nor before the first', () => {
    const activity: LoadOfActivity = {
      phases: [
        { name: 'write', startsAt: at(-20), endsAt: at(-10) },
        { name: 'respond', startsAt: at(-10), endsAt: at(16 * 7 + 3) },
        { name: 'mark', startsAt: at(16 * 7 + 3), endsAt: at(18 * 7 + 3) },
      ],
      rules: [opening, replies],
      marked: true,
      parts: [{ sort: 0, people: 10, reads: 0, teammates: 0 }],
    }
    const load = loadByWeek([activity], 1, term, USUAL_PACE)
    expect(load.map(w => w.week)).toEqual(Array.from({ length: 19 }, (_, i) => i + 1))
    expect([load[0]!.studentMinutes, load[16]!.studentMinutes]).toEqual([20, 15])
    const marking = load.reduce((sum, w) => sum + w.markingMinutes, 0)
    expect(marking).toBeCloseTo(10 * (3 + 420 / 220), 9)
    expect(loadInAll(activity, term, USUAL_PACE)).toMatchObject({ least: 35, most: 35 })
  })
  it('is a range where people differ: who takes part in less has less to do', () => {
    const people = ['a1', 'a2', 'b1'].map(id => ({ id }))
    const of = (start: string): Audience<{ id: string }> => ({
      isMeant: p => p.id.startsWith(start),
      conversationOf: () => '',
      groupOf: () => null,
      readsAlong: true,
    })
    const { parts, sorts } = sortPeople([of(''), of('a')], people)
    const phases = [{ name: 'write' as const, startsAt: at(0), endsAt: at(3) }]
    const rule = { ...opening, minWords: 120 }
    const load = loadByWeek(
      parts.map(p => ({ phases, rules: [rule], marked: false, parts: p })),
      sorts,
      term,
      USUAL_PACE,
    )
    expect(sorts).toBe(2)
    expect(load[0]!.leastMinutes).toBeCloseTo(10 + 240 / 220, 9)
    expect(load[0]!.studentMinutes).toBeCloseTo(20 + 360 / 220, 9)
  })
  it('is weighed before anybody is there', () => {
    const nobody = sortPeople<never>(
      [{ isMeant: () => true, conversationOf: () => '', groupOf: () => null, readsAlong: true }],
      [],
    )
    expect(nobody).toEqual({ parts: [[{ sort: 0, people: 0, reads: 0, teammates: 0 }]], sorts: 1 })
  })

  const person = fc.record({
    section: fc.constantFrom('A', 'B', null),
    group: fc.constantFrom('1', '2', '3', null),
  })
  const anyRule: fc.Arbitrary<ExpectationRule> = fc.oneof(
    fc.record({
      kind: fc.constantFrom('entries' as const, 'weeklyEntries' as const, 'replies' as const),
      need: fc.integer({ min: 1, max: 4 }),
      minWords: fc.integer({ min: 0, max: 500 }),
      due: fc.constant('write' as const),
    }),
    fc.record({
      kind: fc.constant('reviews' as const),
      need: fc.integer({ min: 1, max: 4 }),
      minWords: fc.integer({ min: 0, max: 200 }),
      due: fc.constant('review' as const),
      everyone: fc.boolean(),
    }),
  )
  const anyActivity = fc.record({
    from: fc.integer({ min: -10, max: 115 }),
    days: fc.integer({ min: 1, max: 40 }),
    review: fc.integer({ min: 1, max: 14 }),
    rules: fc.array(anyRule, { minLength: 1, maxLength: 4 }),
    only: fc.constantFrom('A', 'B', null),
    apart: fc.boolean(),
    readsAlong: fc.boolean(),
    marked: fc.boolean(),
    rests: fc.uniqueArray(fc.integer({ min: 1, max: 16 }), { maxLength: 3 }),
  })
  it('is what each person has to do, counted one by one', () => {
    fc.assert(
      fc.property(
        fc.array(anyActivity, { maxLength: 6 }),
        fc.array(person, { minLength: 1, maxLength: 12 }),
        (plan, people) => {
          const audiences = plan.map((a): Audience<(typeof people)[number]> => ({
            isMeant: p => a.only === null || p.section === a.only,
            conversationOf: p => (a.apart ? (p.group ?? '') : ''),
            groupOf: p => p.group,
            readsAlong: a.readsAlong,
          }))
          const { parts, sorts } = sortPeople(audiences, people)
          const phasesOf = (a: (typeof plan)[number]) => [
            { name: 'write' as const, startsAt: at(a.from), endsAt: at(a.from + a.days) },
            {
              name: 'review' as const,
              startsAt: at(a.from + a.days),
              endsAt: at(a.from + a.days + a.review),
            },
          ]
          const load = loadByWeek(
            plan.map((a, i) => ({
              phases: phasesOf(a),
              rules: a.rules,
              marked: a.marked,
              parts: parts[i]!,
              restWeeks: a.rests,
            })),
            sorts,
            term,
            USUAL_PACE,
          )
          // counted anew, person by person, rule by rule
          const minutes = people.map(() => new Map<number, number>())
          let marking = 0
          for (const [i, a] of plan.entries()) {
            const [write, review] = phasesOf(a)
            const meant = people.filter(audiences[i]!.isMeant)
            for (const [n, p] of people.entries()) {
              if (!meant.includes(p)) continue
              const others = meant.filter(
                o => o !== p && (!a.apart || (o.group ?? '') === (p.group ?? '')),
              ).length
              const mates = p.group === null ? 0 : meant.filter(o => o !== p && o.group === p.group).length
              let words = 0
              for (const rule of a.rules as ReadonlyArray<Extract<ExpectationRule, { minWords: number }>>) {
                const isReview = rule.kind === 'reviews'
                const need = isReview && rule.everyone ? mates : rule.need
                const draft = a.rules.reduce(
                  (s, r) => s + (r.kind === 'entries' ? r.need * r.minWords : 0),
                  0,
                )
                const toRead = () => {
                  if (isReview) return rule.everyone ? 0 : rule.need * draft
                  return a.readsAlong && rule.kind !== 'replies' ? others * rule.need * rule.minWords : 0
                }
                const weeks =
                  rule.kind === 'weeklyEntries'
                    ? weeklySpans(write!, term, a.rests).map(s => s.week)
                    : [weekOf((isReview ? review! : write!).endsAt, term)]
                for (const week of weeks) {
                  const key = Math.max(1, week)
                  const more = (need * rule.minWords) / 12 + toRead() / 220
                  minutes[n]!.set(key, (minutes[n]!.get(key) ?? 0) + more)
                }
                words += need * rule.minWords * weeks.length
              }
              if (a.marked) marking += 3 + words / 220
            }
          }
          for (const week of load) {
            const each = minutes.map(m => m.get(week.week) ?? 0)
            expect(week.studentMinutes).toBeCloseTo(Math.max(...each), 6)
            expect(week.leastMinutes).toBeCloseTo(Math.min(...each), 6)
          }
          for (const own of minutes)
            for (const week of own.keys()) expect(week).toBeLessThanOrEqual(load.length)
          expect(load.reduce((sum, w) => sum + w.markingMinutes, 0)).toBeCloseTo(marking, 6)
        },
      ),
      { numRuns: 200 },
    )
  })
})
