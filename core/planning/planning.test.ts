import { describe, expect, it } from 'vitest'
import { isMeant } from './audience'
import { checkExpectation } from './expectations/checkExpectation'
import { fitToKind } from './fitToKind'
import { loadByWeek } from './loadByWeek'
import { USUAL_PACE } from './load'
import { mergeFields } from './mergeFields'
import { checkActivity, checkPlan, type CheckedActivity } from './planChecks'
import { scheduleFaults } from './schedule'
import { localInstant, type Term } from './week'

const ZONE = 'Europe/Amsterdam'
const at = (day: string, time = '23:59') => localInstant(day, time, ZONE)
const phases = [
  { name: 'write' as const, startsAt: at('2026-10-12', '08:00'), endsAt: at('2026-10-15') },
  { name: 'respond' as const, startsAt: at('2026-10-15'), endsAt: at('2026-10-18') },
  { name: 'mark' as const, startsAt: at('2026-10-19', '00:00'), endsAt: at('2026-11-01') },
]
const talk = (some: Partial<CheckedActivity> = {}): CheckedActivity => ({
  id: 'a',
  kind: 'discussion',
  title: 'Talk',
  state: 'draft',
  opensAt: at('2026-10-12', '08:00'),
  phases,
  rules: [
    { kind: 'entries', need: 1, minWords: 240, due: 'write' },
    { kind: 'replies', need: 3, minWords: 60, due: 'respond' },
  ],
  briefText: 'Who paid for the breakwater, and who says so?',
  hasStarter: true,
  points: 2500,
  rubricPoints: 2500,
  counted: true,
  hasCategory: true,
  asksReaders: true,
  people: 24,
  restWeeks: [],
  promptsAt: [],
  seminar: null,
  ...some,
})
const term: Term = {
  firstDay: '2026-09-28',
  weeks: 12,
  timeZone: ZONE,
  breaks: [{ week: 6, title: 'Harvest week' }],
}
const context = {
  timeZone: ZONE,
  usualDueTime: '23:59',
  term,
  now: at('2026-10-01'),
  earlier: [] as CheckedActivity[],
}
const codes = (a: CheckedActivity, c = context) => checkActivity(a, c).map(r => r.code)

describe('plan checks of an activity', () => {
  it('says of prompts that are shown when nothing can be answered in time any more, before publishing and after', () => {
    const promptsAt = [at('2026-10-13', '08:00'), phases[1]!.endsAt, at('2026-10-20', '08:00')]
    for (const state of ['draft', 'published'] as const)
      expect(checkActivity(talk({ promptsAt, state }), context)).toEqual([
        { code: 'latePrompts', level: 'fault', prompts: 2 },
      ])
  })
  it('says nothing of what does not concern a kind', () => {
    const note = talk({
      ...{ kind: 'exitNote', hasStarter: false },
      phases: [{ name: 'write', startsAt: phases[0]!.startsAt, endsAt: at('2026-10-14', '11:30') }],
      rules: [{ kind: 'entries', need: 1, minWords: 10, due: 'write' }],
    })
    expect(codes(note)).toEqual([])
  })
  it('say of a peer review that asks its readers for nothing, before publishing and after, and of nothing else', () => {
    const said = (some: object) => codes(talk({ kind: 'review', ...some })).includes('nothingReviewed')
    expect([said({ asksReaders: false }), said({ asksReaders: false, state: 'published' })]).toEqual([
      true,
      true,
    ])
    expect([said({}), codes(talk({ asksReaders: false })).includes('nothingReviewed')]).toEqual([
      false,
      false,
    ])
  })
  it('are silent when all is well', () => expect(codes(talk())).toEqual([]))
  it('name what is missing and what to think about', () => {
    expect(codes(talk({ rules: [] }))).toContain('nothingAsked')
    expect(codes(talk({ hasStarter: false }))).toEqual(['noStarter'])
    expect(codes(talk({ briefText: '' }))).toEqual(['noBrief'])
    expect(codes(talk({ briefText: 'Discuss the reading.' }))).toEqual(['vagueBrief'])
    expect(codes(talk({ people: 0 }))).toEqual(['nobodyMeant'])
    expect(codes(talk({ rubricPoints: 2000 }))).toEqual(['pointsApart'])
    expect(codes(talk({ hasCategory: false }))).toEqual(['noCategory'])
    expect(
      codes(talk({ kind: 'blog', rules: [{ kind: 'entries', need: 1, minWords: 400, due: 'write' }] })),
    ).toEqual(['oneEntryBlog'])
  })
  it('name due times unlike the usual one, also across the end of daylight saving', () => {
    expect(codes(talk({ phases: [{ ...phases[0]!, endsAt: at('2026-10-25') }] }))).toEqual([])
    expect(
      checkActivity(talk({ phases: [{ ...phases[0]!, endsAt: at('2026-10-26', '22:59') }] }), context),
    ).toEqual([{ code: 'unusualTime', level: 'advice', phases: ['write'] }])
  })
  it('name due times in a break and after the term, and those that have passed', () => {
    const due = (...ends: Date[]) => talk({ phases: ends.map((endsAt, i) => ({ ...phases[i]!, endsAt })) })
    expect(checkActivity(due(at('2026-10-15'), at('2026-11-08')), context)).toEqual([
      { code: 'inBreak', level: 'advice', phases: ['respond'], title: 'Harvest week' },
    ])
    expect(codes(due(at('2026-10-15'), at('2026-12-20')))).toEqual([])
    expect(codes(due(at('2026-10-15'), at('2026-12-21')))).toEqual(['afterTerm'])
    expect(checkActivity(talk(), { ...context, now: at('2026-10-16') })).toEqual([
      { code: 'past', level: 'fault', phases: ['write'] },
    ])
  })
  it('go on after publishing with what can still be mended, and are silent about the rest', () => {
    const published = (some: Partial<CheckedActivity>) => codes(talk({ state: 'published', ...some }))
    expect(published({ hasCategory: false })).toEqual(['noCategory'])
    expect(published({ rubricPoints: 2000 })).toEqual(['pointsApart'])
    expect(published({ people: 0 })).toEqual(['nobodyMeant'])
    const bare = { briefText: '', rules: [], hasStarter: false }
    expect(published(bare)).toEqual(['nothingAsked', 'noBrief'])
    expect(codes(talk({ state: 'published', ...bare }), { ...context, now: at('2026-10-19') })).toEqual([])
    const inBreak = { phases: [{ ...phases[0]!, endsAt: at('2026-11-08') }] }
    expect(published(inBreak)).toEqual(['inBreak'])
    // what is over is nobody's plan any more
    expect(codes(talk({ state: 'published', ...inBreak }), { ...context, now: at('2026-11-09') })).toEqual([])
  })
  it('compare with the latest of the same kind by the same instructor', () => {
    const earlier = [
      talk({
        id: 'b',
        title: 'Breakwater',
        state: 'published',
        opensAt: at('2026-09-28', '08:00'),
        phases: [{ ...phases[0]!, endsAt: at('2026-10-08') }],
        rules: [{ kind: 'replies', need: 5, minWords: 60, due: 'write' }],
      }),
      talk({ id: 'c', kind: 'journal', state: 'published', opensAt: at('2026-10-01') }),
    ]
    expect(checkActivity(talk(), { ...context, earlier })).toEqual([
      {
        code: 'shortNotice',
        level: 'advice',
        days: 4,
        earlierDays: 11,
        earlier: { title: 'Breakwater', seminar: null },
      },
      {
        code: 'fewerReplies',
        level: 'advice',
        need: 3,
        earlierNeed: 5,
        earlier: { title: 'Breakwater', seminar: null },
        rule: 1,
      },
    ])
  })
})

describe('the load of a term', () => {
  const term = {
    firstDay: '2026-09-07',
    weeks: 12,
    timeZone: ZONE,
    breaks: [{ week: 8, title: 'Reading week' }],
  }
  it('puts work into the week it is due in and marking over its weeks', () => {
    const load = loadByWeek(
      [
        {
          phases,
          rules: talk().rules,
          marked: true,
          parts: [{ sort: 0, people: 24, reads: 23, teammates: 0 }],
        },
      ],
      1,
      term,
      USUAL_PACE,
    )
    // writing 240 + 180 words at 12 a minute; reading 23 openings of 240 at 220 a minute
    expect(load[5]!.studentMinutes).toBeCloseTo(420 / 12 + (23 * 240) / 220, 6)
    const marking = 24 * (3 + 420 / 220)
    expect([load[6]!.markingMinutes, load[7]!.markingMinutes].map(m => Math.round(m * 1e6))).toEqual([
      Math.round((marking / 2) * 1e6),
      Math.round((marking / 2) * 1e6),
    ])
    expect(load.reduce((n, w) => n + w.studentMinutes + w.markingMinutes, 0)).toBeCloseTo(
      load[5]!.studentMinutes + marking,
      6,
    )
  })
  it('asks weekly work in every teaching week but those of rest', () => {
    const journal = [
      { name: 'write' as const, startsAt: at('2026-09-14', '00:00'), endsAt: at('2026-11-29') },
    ]
    const load = loadByWeek(
      [
        {
          phases: journal,
          rules: [{ kind: 'weeklyEntries', need: 1, minWords: 120, due: 'write' }],
          marked: false,
          parts: [{ sort: 0, people: 24, reads: 0, teammates: 0 }],
          restWeeks: [5],
        },
      ],
      1,
      term,
      USUAL_PACE,
    )
    expect(load.map(w => w.studentMinutes)).toEqual([0, 10, 10, 10, 0, 10, 10, 0, 10, 10, 10, 10])
  })
  it('is remarked on above the limits, with what resting would save, and weights that do not make a hundred', () => {
    const load = [
      { week: 1, studentMinutes: 400, leastMinutes: 0, markingMinutes: 0 },
      { week: 2, studentMinutes: 360, leastMinutes: 0, markingMinutes: 500 },
    ]
    expect(
      checkPlan(load, [30, 65], { studentMinutes: 360, markingMinutes: 480 }, [
        { activityId: 'n', minutes: 40, weeks: [1, 2] },
      ]),
    ).toEqual([
      { code: 'weights', sum: 95 },
      {
        code: 'heavyWeek',
        week: 1,
        minutes: 400,
        least: 0,
        limit: 360,
        rest: { activityId: 'n', minutes: 40 },
      },
      { code: 'heavyMarking', week: 2, minutes: 500, limit: 480 },
    ])
    expect(checkPlan(load.slice(1, 1), [60, 40], { studentMinutes: 1, markingMinutes: 1 }, [])).toEqual([])
  })
})

describe('weekly entries', () => {
  const weeks = [0, 7, 14].map(d => ({
    startsAt: at(`2026-09-${String(7 + d).padStart(2, '0')}`, '00:00'),
    endsAt: at(`2026-09-${String(14 + d).padStart(2, '0')}`, '00:00'),
  }))
  const entry = (id: string, day: string, words = 100) => ({
    id,
    type: 'entry' as const,
    shownAt: at(day, '12:00'),
    words,
    answers: null,
  })
  const check = (list: ReturnType<typeof entry>[]) =>
    checkExpectation({ kind: 'weeklyEntries', need: 1, minWords: 80, due: 'write' }, list, {
      personId: 'x',
      timeZone: ZONE,
      entryType: 'entry',
      weeks,
    })
  it('count one for each week; two in a week do not stand for another', () => {
    expect(
      check([entry('a', '2026-09-08'), entry('b', '2026-09-09'), entry('c', '2026-09-22')]),
    ).toMatchObject({ have: 2, need: 3, met: false, missing: 1, contributionIds: ['a', 'c'] })
    expect(
      check([entry('c', '2026-09-22'), entry('b', '2026-09-16'), entry('a', '2026-09-13')]),
    ).toMatchObject({ have: 3, met: true, metAt: at('2026-09-22', '12:00') })
  })
  it('refuse to be checked without knowing the weeks', () => {
    expect(() =>
      checkExpectation({ kind: 'weeklyEntries', need: 1, minWords: 1, due: 'write' }, [], {
        personId: 'x',
        timeZone: ZONE,
        entryType: 'entry',
      }),
    ).toThrow(RangeError)
  })
})

describe('a change of kind', () => {
  const nextDue = (after: Date) => new Date(after.getTime() + 7 * 86_400_000)
  it('keeps what applies, with its dates, and puts aside what does not', () => {
    const fitted = fitToKind(phases, talk().rules, 'discussion', 'journal', nextDue)
    expect(fitted.phases.map(p => p.name)).toEqual(['write', 'mark'])
    expect(fitted.rules.slice(0, 1)).toEqual([talk().rules[0]])
    expect(fitted.unfit).toEqual([talk().rules[1]])
    const review = fitToKind(phases, talk().rules, 'discussion', 'review', nextDue)
    expect(review.phases.map(p => p.name)).toEqual(['write', 'review', 'mark'])
    expect(review.phases[1]).toMatchObject({ startsAt: phases[1]!.startsAt, endsAt: phases[1]!.endsAt })
  })
  it('brings what the new kind alone asks for, and the phases it takes, before marking', () => {
    const note = fitToKind(phases, talk().rules, 'discussion', 'exitNote', nextDue)
    expect(note.phases.map(p => p.name)).toEqual(['write', 'mark'])
    const wiki = fitToKind(note.phases, note.rules, 'exitNote', 'wiki', nextDue)
    expect(wiki.phases.map(p => p.name)).toEqual(['write', 'respond', 'revise', 'mark'])
    expect(scheduleFaults({ opensAt: talk().opensAt, phases: wiki.phases })).toEqual([])
    expect(wiki.rules.map(r => r.kind)).toEqual(['entries', 'ownPages', 'replies', 'revisions'])
  })
})

describe('two people changing one activity', () => {
  it('both keep what only they changed; what both changed is named', () => {
    const base = { title: 'A', points: 25, brief: { type: 'doc', content: [] }, rules: [1] }
    expect(
      mergeFields(base, { ...base, title: 'B', rules: [1, 2] }, { ...base, points: 20, rules: [3] }),
    ).toEqual({
      merged: { title: 'B', points: 20, brief: { type: 'doc', content: [] }, rules: [1, 2] },
      taken: ['points'],
      clashes: ['rules'],
    })
  })
  it('takes two who made the same change for one', () => {
    expect(
      mergeFields({ a: 1, o: { x: 1, y: 2 } }, { a: 2, o: { x: 1, y: 2 } }, { a: 2, o: { y: 2, x: 1 } }),
    ).toMatchObject({ taken: [], clashes: [] })
  })
})

describe('for whom an activity is', () => {
  const liv = { enrolmentId: 'liv', sectionId: 'A', groupIds: ['g1'] }
  it.each([
    [{ kind: 'everyone' as const }, true],
    [{ kind: 'sections' as const, sectionIds: ['B'] }, false],
    [{ kind: 'sections' as const, sectionIds: ['A', 'B'] }, true],
    [{ kind: 'people' as const, enrolmentIds: ['paz'] }, false],
    [{ kind: 'groups' as const, groupPlanId: 'p', groupIds: [] }, true],
    [{ kind: 'groups' as const, groupPlanId: 'p', groupIds: ['g2'] }, false],
  ])('%j means Liv: %s', (audience, meant) => expect(isMeant(audience, liv, ['g1', 'g2'])).toBe(meant))
  it('means nobody who is in no group of the plan', () => {
    expect(
      isMeant({ kind: 'groups', groupPlanId: 'p', groupIds: [] }, { ...liv, groupIds: ['other'] }, ['g1']),
    ).toBe(false)
  })
})
