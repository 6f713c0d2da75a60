import { describe, expect, it } from 'vitest'
import { seededRandom } from '../chance/seededRandom'
import { measureVoices } from './measureVoices'
import { mostAnswered } from './mostAnswered'
import { answersAmong, readNetwork } from './network'
import { countSyllables, readingEase } from './readingEase'
import { localClock, rhythmOf } from './rhythm'
import type { TalkEntry } from './talkEntry'
import { gini, haveHalf, lorenz, median } from './share'

const day = (at: number) => new Date(at).toISOString().slice(0, 10)

/** Talk of some people by chance: threads, answers, staff among them, some who never speak. */
function talk(seed: number, n: number) {
  const random = seededRandom(seed)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const [people, staff] = [Array.from({ length: 9 }, (_, i) => `p${i}`), ['s0', 's1']]
  const speakers = [...people.slice(0, 7), ...staff, 'guest']
  const talkEntries: TalkEntry[] = []
  for (let i = 0; i < n; i++) {
    const parent = i > 0 && random() < 0.7 ? pick(talkEntries) : null
    const words = Math.floor(random() * 200)
    talkEntries.push({
      id: `c${i}`,
      authorId: pick(speakers),
      activityId: parent?.activityId ?? pick(['a', 'b']),
      parentId: parent?.id ?? null,
      answersId: parent?.authorId ?? null,
      answersAt: parent?.at ?? null,
      depth: parent ? parent.depth + 1 : 0,
      at: 1.7e12 + i * 3_600_000 * random() * 5,
      words,
      sentences: Math.ceil(words / 15),
      syllables: Math.ceil(words * 1.4),
    })
  }
  return { people, staff: new Set(staff), talkEntries }
}
const due = (activityId: string, personId: string) =>
  activityId === 'b' && personId === 'p1' ? null : 1.7e12 + 86_400_000

describe('voices', () => {
  it('are what somebody would count who reads everything again for each figure', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const { people, staff, talkEntries } = talk(seed, 10 + seed * 3)
      const all = measureVoices(talkEntries, { people, staff, dayOf: day, dueOf: due })
      const of = (id: string) => talkEntries.filter(s => s.authorId === id)
      const heard = (s: TalkEntry) =>
        talkEntries.some(
          r =>
            r.parentId === s.id &&
            r.authorId !== s.authorId &&
            (people.includes(r.authorId) || staff.has(r.authorId)),
        )
      for (const v of all.voices) {
        const own = of(v.personId)
        const answers = own.filter(s => s.answersId !== null && s.answersId !== v.personId)
        const to = new Set(answers.map(s => s.answersId!).filter(id => people.includes(id)))
        const by = new Set(
          talkEntries
            .filter(
              s => s.answersId === v.personId && s.authorId !== v.personId && people.includes(s.authorId),
            )
            .map(s => s.authorId),
        )
        expect(v).toMatchObject({
          contributions: own.length,
          words: own.reduce((n, s) => n + s.words, 0),
          daysActive: new Set(own.map(s => day(s.at))).size,
          answered: to.size,
          answeredBy: by.size,
          answersGot: talkEntries.filter(
            s => s.answersId === v.personId && s.authorId !== v.personId && people.includes(s.authorId),
          ).length,
          depth: own.length === 0 ? null : Math.max(...own.map(s => s.depth)),
          shareAnswered: own.length === 0 ? null : own.filter(heard).length / own.length,
          reciprocity: to.size === 0 ? null : [...to].filter(id => by.has(id)).length / to.size,
          medianToAnswer: median(answers.map(s => s.at - s.answersAt!)),
        })
        const leads = ['a', 'b'].flatMap(a => {
          const first = own.filter(s => s.activityId === a).map(s => s.at)
          const d = due(a, v.personId)
          return first.length > 0 && d !== null ? [Math.min(...first) - d] : []
        })
        expect(v.firstAgainstDue).toBe(median(leads))
      }
      const studentWords = people.flatMap(of).reduce((n, s) => n + s.words, 0)
      const staffWords = [...staff].flatMap(of).reduce((n, s) => n + s.words, 0)
      expect(all).toMatchObject({
        contributions: people.flatMap(of).length,
        words: studentWords,
        silent: people.filter(id => of(id).length === 0),
        staffShare: studentWords + staffWords === 0 ? null : staffWords / (studentWords + staffWords),
      })
      expect(answersAmong(talkEntries, new Set(people)).reduce((n, e) => n + e.times, 0)).toBe(
        talkEntries.filter(
          s =>
            people.includes(s.authorId) &&
            s.answersId !== null &&
            s.answersId !== s.authorId &&
            people.includes(s.answersId),
        ).length,
      )
      const [most] = mostAnswered(talkEntries, 1)
      expect(most!.answers).toBe(
        Math.max(
          ...talkEntries.map(
            s => talkEntries.filter(r => r.parentId === s.id && r.authorId !== s.authorId).length,
          ),
        ),
      )
    }
  })

  it('of nobody, and of people who said nothing, are nothing and not zero', () => {
    const none = measureVoices([], { people: ['a', 'b'], staff: new Set(), dayOf: day, dueOf: due })
    expect(none).toMatchObject({
      contributions: 0,
      spoke: 0,
      silent: ['a', 'b'],
      gini: null,
      haveHalf: 0,
      shareAnswered: null,
      reciprocity: null,
      staffShare: null,
    })
    expect(none.voices[0]).toMatchObject({
      wordsEach: null,
      sentenceLength: null,
      ease: null,
      firstAgainstDue: null,
      medianToAnswer: null,
      depth: null,
    })
  })
})

describe('a share', () => {
  it('is even at 0, and one who has all of four at three quarters', () => {
    expect(gini([5, 5, 5, 5])).toBeCloseTo(0, 12)
    expect(gini([0, 0, 0, 8])).toBeCloseTo(0.75, 12)
    expect(gini([1, 2, 3, 4, 5])).toBeCloseTo(4 / 15, 12) // mean difference 1.6 over twice the mean of 3
    expect([gini([]), gini([0, 0])]).toEqual([null, null])
  })
  it('is the mean difference of all pairs over twice the mean, and twice the area between its curve and the even one', () => {
    for (let seed = 1; seed < 30; seed++) {
      const random = seededRandom(seed)
      const x = Array.from({ length: 2 + seed }, () => Math.floor(random() * 1000))
      const mean = x.reduce((a, b) => a + b) / x.length
      expect(gini(x)).toBeCloseTo(
        x.flatMap(a => x.map(b => Math.abs(a - b))).reduce((a, b) => a + b) / (2 * x.length ** 2 * mean),
        9,
      )
      const curve = lorenz(x)
      const area = curve
        .slice(1)
        .reduce((sum, [p, s], i) => sum + ((p - curve[i]![0]) * (s + curve[i]![1])) / 2, 0)
      expect(1 - 2 * area).toBeCloseTo(gini(x)!, 9)
      const falling = [...x].sort((a, b) => b - a)
      const k = haveHalf(x)
      const sum = (n: number) => falling.slice(0, n).reduce((a, b) => a + b, 0)
      expect(sum(k) >= sum(x.length) / 2 && sum(k - 1) < sum(x.length) / 2).toBe(true)
    }
  })
})

describe('reading ease', () => {
  it('follows its formula', () => {
    expect(readingEase(100, 5, 150)).toBeCloseTo(59.635, 6)
    expect(readingEase(0, 0, 0)).toBeNull()
  })
  it('counts syllables as they are spoken in most words', () => {
    const words = {
      harbour: 2,
      table: 2,
      paid: 1,
      stone: 1,
      the: 1,
      measure: 2,
      breakwater: 3,
      asked: 1,
      wanted: 2,
      houses: 2,
      lasts: 1,
      council: 2,
      widow: 2,
      whole: 1,
      a: 1,
      tide: 1,
      guild: 1,
      idea: 2,
    }
    expect(Object.fromEntries(Object.keys(words).map(w => [w, countSyllables(w)]))).toEqual(words)
  })
})

describe('a network', () => {
  it('knows who stands between others, and who talk among themselves', () => {
    let n = 0
    const says = (authorId: string, answersId: string): TalkEntry => ({
      id: `x${n++}`,
      authorId,
      answersId,
      parentId: 'y',
      activityId: 'a',
      answersAt: 0,
      depth: 1,
      at: 1,
      words: 1,
      sentences: 1,
      syllables: 1,
    })
    const path = readNetwork(
      [says('a', 'b'), says('b', 'c'), says('b', 'b'), says('z', 'a')],
      ['a', 'b', 'c'],
    )
    expect(path.edges).toEqual([
      { from: 'a', to: 'b', times: 1 },
      { from: 'b', to: 'c', times: 1 },
    ])
    expect([...path.betweenness]).toEqual([
      ['a', 0],
      ['b', 0.5],
      ['c', 0],
    ]) // one of the two pairs of others leads over b
    const two = ['a', 'b', 'c'].flatMap(x => ['a', 'b', 'c'].filter(y => y !== x).map(y => says(x, y)))
    const groups = readNetwork(
      [...two, ...two.map(s => says(s.authorId + '2', s.answersId! + '2')), says('a', 'a2')],
      ['a', 'b', 'c', 'a2', 'b2', 'c2'],
    ).communities
    expect(['a', 'b', 'c', 'a2', 'b2', 'c2'].map(id => groups.get(id))).toEqual([0, 0, 0, 1, 1, 1])
    expect(readNetwork([], ['a']).betweenness.get('a')).toBe(0)
  })

  // circles are found by trying, so nothing repeats them; but what is found must hold, by the definition of modularity
  it('finds circles no two of which would be better as one, which say more than none, and the same ones again', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const random = seededRandom(seed)
      const people = Array.from({ length: 4 + Math.floor(random() * 14) }, (_, i) => `p${i}`)
      const talkEntries = Array.from({ length: 10 + Math.floor(random() * 50) }, (_, i): TalkEntry => ({
        id: `x${i}`,
        authorId: people[Math.floor(random() ** 2 * people.length)]!,
        answersId: people[Math.floor(random() * people.length)]!,
        parentId: 'y',
        activityId: 'a',
        answersAt: 0,
        depth: 1,
        at: 1,
        words: 1,
        sentences: 1,
        syllables: 1,
      }))
      const { edges, betweenness, communities } = readNetwork(talkEntries, people)
      expect(readNetwork([...talkEntries].reverse(), people).communities).toEqual(communities)
      expect(readNetwork(talkEntries, [...people].reverse()).betweenness).toEqual(betweenness)
      const total = edges.reduce((n, e) => n + e.times, 0)
      const modularity = (of: (id: string) => number) => {
        const [inside, degree] = [new Map<number, number>(), new Map<number, number>()]
        for (const e of edges) {
          if (of(e.from) === of(e.to)) inside.set(of(e.from), (inside.get(of(e.from)) ?? 0) + e.times)
          for (const id of [e.from, e.to]) degree.set(of(id), (degree.get(of(id)) ?? 0) + e.times)
        }
        return [...degree].reduce((q, [c, d]) => q + (inside.get(c) ?? 0) / total - (d / (2 * total)) ** 2, 0)
      }
      const found = modularity(id => communities.get(id)!)
      expect(found).toBeGreaterThanOrEqual(-1e-9)
      const circles = [...new Set(communities.values())]
      for (const a of circles)
        for (const b of circles)
          if (a < b)
            expect(
              modularity(id => (communities.get(id) === b ? a : communities.get(id)!)),
              `seed ${seed}`,
            ).toBeLessThanOrEqual(found + 1e-9)
    }
  })
})

describe('a rhythm', () => {
  it('follows local clocks, also on the night they are set back', () => {
    const clock = localClock('Europe/Amsterdam')
    expect(clock(Date.parse('2026-10-24T23:30:00Z'))).toEqual({ day: '2026-10-25', hour: 1 })
    expect([
      clock(Date.parse('2026-10-25T00:30:00Z')).hour,
      clock(Date.parse('2026-10-25T01:30:00Z')).hour,
    ]).toEqual([2, 2])
    expect(localClock('Asia/Kathmandu')(Date.parse('2026-10-24T18:14:59Z'))).toEqual({
      day: '2026-10-24',
      hour: 23,
    })
    const [first, second] = rhythmOf(
      [
        Date.parse('2026-10-24T23:30:00Z'),
        Date.parse('2026-10-25T12:00:00Z'),
        Date.parse('2026-11-01T12:00:00Z'),
      ],
      'Europe/Amsterdam',
      ['2026-10-24', '2026-10-25'],
    )
    expect([first!.count, second!.count, second!.hours[1], second!.hours[13]]).toEqual([0, 2, 1, 1])
  })
})
