import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { TEST_NOW, type Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import type { TermPlan } from '#shared/planning/plan'

const key = () => v7()
const NOW = new Date(TEST_NOW)
/** Local clock of the demo seminar. */
const wall = (at: string | Date) =>
  new Intl.DateTimeFormat('en-GB', {
    timeZone: 'Europe/Amsterdam',
    weekday: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  }).format(new Date(at))

describe('an activity through its life', () => {
  let world: World
  let ines: Client
  const path = (id: string) => `/api/activities/${id}/plan`
  const view = async (id: string) => (await ines.json<ComposerView>('GET', path(id))).body
  const patch = async (id: string, change: Partial<ActivityBody>, tell = false) =>
    ines.json<ComposerView>('PATCH', path(id), {
      key: key(),
      baseVersion: (await view(id)).version,
      change,
      tell,
    })
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
  })
  afterAll(() => world.close())

  it('is put into another unit, before another activity, and nothing else moves', async () => {
    const order = async () =>
      (await ines.json<TermPlan>('GET', `/api/seminars/${world.seminar.id}/plan`)).body.activities
    const before = await order()
    const [unit] = (await ines.json<TermPlan>('GET', `/api/seminars/${world.seminar.id}/plan`)).body.units
    const write = { key: key(), activityId: world.essays.id, unitId: unit!.id, beforeId: world.breakwater.id }
    for (let i = 0; i < 2; i++)
      expect((await ines.send('PUT', `/api/seminars/${world.seminar.id}/plan/order`, write)).status).toBe(200)
    const after = await order()
    const rest = (list: typeof before) => list.filter(a => a.id !== world.essays.id).map(a => a.id)
    expect(rest(after)).toEqual(rest(before))
    const at = after.findIndex(a => a.id === world.essays.id)
    expect([after[at]!.unitId, after[at + 1]!.id]).toEqual([unit!.id, world.breakwater.id])
  })

  it('is planned from a template with the dates of its week, and copied with its rubric into another seminar', async () => {
    const template = key()
    await ines.send('POST', `/api/activities/${world.dredge.id}/copy`, {
      id: template,
      seminarId: world.seminar.id,
      week: null,
      asTemplate: true,
    })
    expect(
      (await ines.json<TermPlan>('GET', `/api/seminars/${world.seminar.id}/plan`)).body.activities.some(
        a => a.id === template,
      ),
    ).toBe(false)
    const made = key()
    await ines.send('POST', `/api/seminars/${world.seminar.id}/activities`, {
      id: made,
      kind: 'discussion',
      week: 9,
      unitId: null,
      templateId: template,
    })
    const body = (await view(made)).body as ActivityBody
    expect([wall(body.opensAt), body.phases.map(p => wall(p.endsAt)).slice(0, 2)]).toEqual([
      'Mon 08:00',
      ['Thu 23:59', 'Sun 23:59'],
    ])
    expect(new Date(body.opensAt).toISOString().slice(0, 10)).toBe('2026-11-02')
    const other = key()
    await ines.send('POST', '/api/seminars', {
      id: other,
      code: 'O 1',
      title: 'Other',
      college: '',
      timeZone: 'America/New_York',
      firstDay: '2026-09-14',
      weeks: 12,
      breaks: [],
    })
    const copy = key()
    expect(
      (
        await ines.send('POST', `/api/activities/${world.dredge.id}/copy`, {
          id: copy,
          seminarId: other,
          week: null,
          asTemplate: false,
        })
      ).status,
    ).toBe(200)
    // what is for groups here is for everyone there, and says so
    const forGroups = await ines.json<{ left: string[] }>('POST', `/api/activities/${world.city.id}/copy`, {
      id: key(),
      seminarId: other,
      week: null,
      asTemplate: false,
    })
    expect(forGroups.body.left).toContain('audience')
    const there = await view(copy)
    const due = (there.body as ActivityBody).phases[0]!.endsAt
    expect(
      new Intl.DateTimeFormat('en-GB', {
        timeZone: 'America/New_York',
        weekday: 'short',
        hour: '2-digit',
        minute: '2-digit',
      }).format(new Date(due)),
    ).toBe('Thu 23:59')
    expect(there.rubrics.find(r => r.versionId === (there.body as ActivityBody).rubricVersionId)?.title).toBe(
      'Seminar contribution',
    )
    expect(there).toMatchObject({
      seminarId: other,
      state: 'draft',
      contributions: 0,
      body: { audience: { kind: 'everyone' } },
    })
    await world.db.update(t.enrolments).set({ state: 'withdrawn' }).where(eq(t.enrolments.seminarId, other))
  })

  it('locks', async () => {
    await ines.send('PUT', `/api/activities/${world.essays.id}/locked`, { locked: true })
    expect((await patch(world.essays.id, { title: 'No' })).status).toBe(409)
    await ines.send('PUT', `/api/activities/${world.essays.id}/locked`, { locked: false })
    expect((await patch(world.essays.id, { title: 'Draft essays' })).status).toBe(200)
  })

  it('is for whom it says: others do not learn of it, and are counted nowhere', async () => {
    const [sectionB] = await world.db
      .select()
      .from(t.sections)
      .where(and(eq(t.sections.seminarId, world.seminar.id), eq(t.sections.title, 'Section B')))
    const { body: made } = await ines.json<{ id: string }>(
      'POST',
      `/api/seminars/${world.seminar.id}/activities`,
      { id: key(), kind: 'discussion', week: 6, unitId: null, templateId: null },
    )
    await patch(made.id, { title: 'For B alone', audience: { kind: 'sections', sectionIds: [sectionB!.id] } })
    const { version } = await view(made.id)
    expect(
      (
        await ines.send('POST', `/api/activities/${made.id}/publish`, {
          key: key(),
          baseVersion: version,
          opens: 'now',
          tell: false,
        })
      ).status,
    ).toBe(200)
    const [liv, oona] = [await world.as('liv'), await world.as('oona')]
    expect((await liv.send('GET', `/api/activities/${made.id}`)).status).toBe(404)
    expect((await oona.send('GET', `/api/activities/${made.id}`)).status).toBe(200)
    for (const what of ['plan', 'week', 'find?q=alone']) {
      expect(await (await liv.send('GET', `/api/seminars/${world.seminar.id}/${what}`)).text()).not.toContain(
        'For B alone',
      )
      expect(await (await oona.send('GET', `/api/seminars/${world.seminar.id}/${what}`)).text()).toContain(
        'For B alone',
      )
    }
    const plan = (await ines.json<TermPlan>('GET', `/api/seminars/${world.seminar.id}/plan`)).body
    expect(
      Object.values(plan.activities.find(a => a.id === made.id)!.counts!).reduce((a, b) => a + b, 0),
    ).toBe(12)
  })

  it('keeps prompts to come, hidden days and drafts from students', async () => {
    const liv = await world.as('liv')
    const [notebook] = await world.db
      .select()
      .from(t.activities)
      .where(eq(t.activities.title, 'Harbour notebook'))
    const prompts = await world.db.select().from(t.prompts).where(eq(t.prompts.activityId, notebook!.id))
    const seen = await (await liv.send('GET', `/api/activities/${notebook!.id}`)).text()
    expect(prompts.filter(p => p.releaseAt > NOW).length).toBeGreaterThan(0)
    for (const p of prompts) expect(seen.includes(p.html.slice(3, 30))).toBe(p.releaseAt <= NOW)
    await patch(world.dredge.id, { hiddenUntil: '2026-10-20T06:00:00.000Z' })
    const thread = (await liv.thread(`/api/activities/${world.dredge.id}/contributions`)).body
    expect(thread.waiting).toBe(true)
    expect(thread.contributions.every(c => c.view === 'whole' && c.author.isMe)).toBe(true)
    expect(
      JSON.stringify((await liv.json('GET', `/api/seminars/${world.seminar.id}/find?q=quay`)).body),
    ).not.toContain('Rasmus Okonjo in')
    await patch(world.dredge.id, { hiddenUntil: null })
  })

  it('finds only what its reader may read anyway', async () => {
    const [abena] = [await world.contribution('rasmus', world.dredge.id)]
    const phrase = abena.text.split(/\s+/).slice(0, 6).join(' ')
    const find = async (who: string) =>
      JSON.stringify(
        (
          await (
            await world.as(who)
          ).json('GET', `/api/seminars/${world.seminar.id}/find?q=${encodeURIComponent(phrase)}`)
        ).body,
      )
    expect(await find('liv')).toContain(abena.id)
    expect(await find('paz')).not.toContain(abena.id) // has not written: nothing of others is open to them
    expect(await find('ines')).toContain(abena.id)
    const drafts = await world.db.select().from(t.contributions).where(eq(t.contributions.state, 'draft'))
    for (const draft of drafts.filter(d => d.words > 5)) {
      const own = draft.text.split(/\s+/).slice(0, 5).join(' ')
      expect(
        JSON.stringify(
          (await ines.json('GET', `/api/seminars/${world.seminar.id}/find?q=${encodeURIComponent(own)}`))
            .body,
        ),
      ).not.toContain(draft.id)
    }
  })
})
