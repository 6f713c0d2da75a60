import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { TermPlan } from '#shared/planning/plan'

const key = () => v7()
/** Local clock of the demo seminar. */
const wall = (at: string | Date) =>
  new Intl.DateTimeFormat('en-GB', {
    timeZone: 'Europe/Amsterdam',
    weekday: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  }).format(new Date(at))

describe('dates', () => {
  let world: World
  let ines: Client
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
  })
  afterAll(() => world.close())
  const due = (feed: string, title: string) =>
    [...feed.replace(/\r\n /g, '').matchAll(/BEGIN:VEVENT[\s\S]*?END:VEVENT/g)]
      .map(m => m[0])
      .filter(e => e.includes(title))
      .map(e => ({
        uid: /UID:(\S+)/.exec(e)![1]!,
        sequence: Number(/SEQUENCE:(\d+)/.exec(e)![1]),
        at: /DTSTART:(\S+)/
          .exec(e)![1]!
          .replace(/(\d{4})(\d\d)(\d\d)T(\d\d)(\d\d)(\d\d)Z/, '$1-$2-$3T$4:$5:$6Z'),
      }))

  it('reach a calendar at local 23:59 on both sides of the end of daylight saving, move in it, and stop when its address is revoked', async () => {
    const liv = await world.as('liv')
    const { body } = await liv.json<{ calendarPath: string }>('POST', '/api/account/calendar')
    const feed = async () => (await world.nobody.send('GET', body.calendarPath)).text()
    const first = await feed()
    expect(first).toMatch(/^BEGIN:VCALENDAR\r\n/)
    expect(first).not.toContain('Draft essays') // a draft is nobody's date
    expect(wall(due(first, 'Should the harbour board dredge?')[0]!.at)).toBe('Thu 23:59')
    for (const event of due(first, 'City pages')) expect(wall(event.at)).toBe('Sun 23:59') // 25 October and 1 November
    const [before] = due(first, 'Should the harbour board dredge?')
    const plan = (
      await ines.json<TermPlan>('GET', `/api/seminars/${world.seminar.id}/plan`)
    ).body.activities.find(a => a.id === world.dredge.id)!
    const move = (at: string) => new Date(Date.parse(at) + 86_400_000).toISOString()
    await ines.send('PUT', `/api/activities/${world.dredge.id}/schedule`, {
      key: key(),
      baseVersion: plan.version,
      opensAt: plan.opensAt,
      phases: plan.phases.map((p, i) => ({
        ...p,
        startsAt: i === 0 ? p.startsAt : move(p.startsAt),
        endsAt: move(p.endsAt),
      })),
    })
    const [after] = due(await feed(), 'Should the harbour board dredge?')
    expect([after!.uid, wall(after!.at)]).toEqual([before!.uid, 'Fri 23:59'])
    expect(after!.sequence).toBeGreaterThan(before!.sequence)
    const extended = await world.enrolment('liv')
    await ines.send('PUT', `/api/activities/${world.dredge.id}/extensions/${extended.id}`, {
      dueAt: '2026-10-28T22:59:00Z',
      reason: 'ill',
    })
    expect(wall(due(await feed(), 'Should the harbour board dredge?')[1]!.at)).toBe('Wed 23:59')
    await liv.send('POST', '/api/account/calendar')
    expect((await world.nobody.send('GET', body.calendarPath)).status).toBe(404)
  })

  it('of a seminar copied for another term keep weekday, local time and teaching week over breaks', async () => {
    const id = key()
    await ines.send('POST', `/api/seminars/${world.seminar.id}/copy`, {
      id,
      code: 'HC 343',
      title: 'Harbour Cities again',
      firstDay: '2027-02-01',
      weeks: 13,
      breaks: [{ week: 9, title: 'Spring break' }],
    })
    const rows = async (seminarId: string) =>
      world.db
        .select({
          title: t.activities.title,
          name: t.phases.name,
          endsAt: t.phases.endsAt,
          state: t.activities.state,
        })
        .from(t.phases)
        .innerJoin(t.activities, eq(t.activities.id, t.phases.activityId))
        .where(eq(t.activities.seminarId, seminarId))
        .orderBy(t.activities.position, t.phases.position)
    const [old, copy] = [await rows(world.seminar.id), await rows(id)]
    expect(copy.map(r => [r.title, r.name])).toEqual(old.map(r => [r.title, r.name]))
    expect(copy.every(r => r.state === 'draft')).toBe(true)
    const weekOf = (at: Date, first: string) =>
      Math.floor(
        (Date.parse(new Intl.DateTimeFormat('en-CA', { timeZone: 'Europe/Amsterdam' }).format(at)) -
          Date.parse(first)) /
          (7 * 86_400_000),
      ) + 1
    for (const [i, row] of copy.entries()) {
      expect(wall(row.endsAt)).toBe(wall(old[i]!.endsAt))
      const week = weekOf(old[i]!.endsAt, world.seminar.firstDay)
      expect(weekOf(row.endsAt, '2027-02-01')).toBe(week >= 9 ? week + 1 : week)
    }
    expect(await world.db.$count(t.contributions, eq(t.contributions.seminarId, id))).toBe(0)
    expect(await world.db.$count(t.enrolments, eq(t.enrolments.seminarId, id))).toBe(1)
  })
})
