import { describe, expect, it } from 'vitest'
import { checkActivity, type CheckedActivity, type PlanRemark } from '#core/planning/planChecks'
import { scheduleFaults } from '#core/planning/schedule'
import { localInstant } from '#core/planning/week'
import type { ActivityBody } from '#shared/planning/composer'
import { remarkWords } from './planRemarks'

const ZONE = 'Europe/Amsterdam'
const at = (day: string, time = '23:59') => localInstant(day, time, ZONE)
const seminar = {
  timeZone: ZONE,
  usualDueTime: '23:59',
  term: { firstDay: '2026-10-05', weeks: 10, timeZone: ZONE, breaks: [{ week: 3, title: 'Reading week' }] },
  now: at('2026-10-01'),
}
const activity = (some: Partial<CheckedActivity> = {}): CheckedActivity => ({
  id: 'a',
  kind: 'discussion',
  title: 'Talk',
  state: 'draft',
  opensAt: at('2026-10-19', '08:00'),
  phases: [
    { name: 'write', startsAt: at('2026-10-19', '08:00'), endsAt: at('2026-10-22') },
    { name: 'respond', startsAt: at('2026-10-22'), endsAt: at('2026-10-25') },
    { name: 'mark', startsAt: at('2026-10-26', '00:00'), endsAt: at('2026-11-01') },
  ],
  rules: [
    { kind: 'entries', need: 1, minWords: 200, due: 'write' },
    { kind: 'replies', need: 2, minWords: 60, due: 'respond' },
  ],
  briefText: 'Who paid, and who says so?',
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
const bodyOf = (a: CheckedActivity) => ({
  opensAt: a.opensAt.toISOString(),
  phases: a.phases.map(p => ({
    name: p.name,
    startsAt: p.startsAt.toISOString(),
    endsAt: p.endsAt.toISOString(),
  })),
  rules: a.rules.map((rule, i) => ({ id: `r${i}`, rule, needed: true })),
  points: a.points,
})
/** The activity as it is when a remedy's change was made. */
const mended = (a: CheckedActivity, change: Partial<ActivityBody>): CheckedActivity => ({
  ...a,
  ...(change.points !== undefined && { points: change.points }),
  ...(change.rules && { rules: change.rules.map(r => r.rule) }),
  ...(change.opensAt && { opensAt: new Date(change.opensAt) }),
  ...(change.phases && {
    phases: change.phases.map(p => ({
      name: p.name,
      startsAt: new Date(p.startsAt),
      endsAt: new Date(p.endsAt),
    })),
  }),
})
const earlier = [
  activity({
    id: 'b',
    title: 'Before',
    state: 'published',
    opensAt: at('2026-09-07', '08:00'),
    phases: [{ name: 'write', startsAt: at('2026-09-07', '08:00'), endsAt: at('2026-09-20') }],
    rules: [{ kind: 'replies', need: 4, minWords: 40, due: 'write' }],
  }),
]
const late = (time: string) =>
  activity().phases.map(p =>
    p.name === 'mark'
      ? p
      : {
          ...p,
          startsAt: p.name === 'respond' ? at('2026-10-22', time) : p.startsAt,
          endsAt: at(p.name === 'write' ? '2026-10-22' : '2026-10-25', time),
        },
  )

describe('a plan check with a remedy', () => {
  it.each<[string, CheckedActivity, CheckedActivity[]]>([
    [
      'oneEntryBlog',
      activity({ kind: 'blog', rules: [{ kind: 'entries', need: 1, minWords: 300, due: 'write' }] }),
      [],
    ],
    ['unusualTime', activity({ phases: late('18:00') }), []],
    ['unusualTime', activity({ phases: late('17:30').filter(p => p.name !== 'respond') }), []],
    ['pointsApart', activity({ points: 2000 }), []],
    ['shortNotice', activity(), earlier],
    ['fewerReplies', activity(), earlier],
  ])('is cured of %s by it, and by nothing that contradicts itself', (code, a, before) => {
    const context = { ...seminar, earlier: before }
    const remark = checkActivity(a, context).find(r => r.code === code) as PlanRemark
    const { remedy, text } = remarkWords(remark, bodyOf(a), seminar)
    expect(text).toMatch(/[.]$/)
    if (!remedy || typeof remedy.change === 'string') throw new Error(`${code} has no change to make`)
    const after = mended(a, remedy.change)
    expect(checkActivity(after, context).map(r => r.code)).not.toContain(code)
    expect(scheduleFaults(after)).toEqual([])
  })

  it('names the other seminar that it compares with', () => {
    const remark: PlanRemark = {
      ...{ code: 'fewerReplies', level: 'advice', need: 1, earlierNeed: 3, rule: 0 },
      earlier: { title: 'Breakwater', seminar: 'HC 341' },
    }
    expect(remarkWords(remark, null, seminar).text).toBe(
      'It asks for one reply; “Breakwater” in HC 341 asked for three.',
    )
  })

  it('has words for every sort of remark, with somewhere to go', () => {
    const bare = activity({ rules: [], briefText: '', hasStarter: false, people: 0, hasCategory: false })
    const codes = checkActivity(bare, { ...seminar, earlier: [] }).map(r => {
      const words = remarkWords(r, null, seminar)
      expect([words.text.length > 10, words.remedy !== null]).toEqual([true, true])
      return r.code
    })
    expect(codes).toEqual(['nothingAsked', 'noBrief', 'nobodyMeant', 'noStarter', 'noCategory', 'inBreak'])
  })
})
