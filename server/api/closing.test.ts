import { eq, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import * as t from '#server/database/schema'
import { tellClosing } from '#server/services/closing/closingRounds'
import { Client, TEST_NOW } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { ClosingView } from '#shared/closing/closing'

const NOW = Date.parse(TEST_NOW)
const hours = (n: number) => new Date(NOW + n * 3_600_000).toISOString()
const [scale, choice, open] = [v7(), v7(), v7()]
const questions = [
  { id: scale, kind: 'scale', text: 'How much?', steps: 5, low: 'little', high: 'much' },
  { id: choice, kind: 'choice', text: 'Which?', options: ['one', 'two', 'three'], several: true },
  { id: open, kind: 'open', text: 'What else?' },
] as const
const WHO = ['liv', 'nico', 'femke', 'rasmus', 'saoirse', 'kadri']

describe('closing questions', () => {
  let world: World
  let ines: Client
  const students = new Map<string, Client>()
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
    for (const who of WHO) students.set(who, await world.as(who))
  })
  afterAll(() => world.close())
  const path = (id: string) => `/api/activities/${id}/closing`
  const ask = async (id: string, named: boolean, more: object = {}) => ines.json<ClosingView>('PUT', path(id), { questions, named, opensAt: hours(-1), closesAt: hours(1), baseVersion: null, ...more })
  const answer = (who: string, id: string, n: number) => students.get(who)!.json<ClosingView>('PUT', `${path(id)}/answers`, { answers: { [scale]: n % 5 + 1, [choice]: [n % 3], [open]: `Words ${n}` } })
  const stored = async (id: string) => (await world.db.select().from(t.closingRounds).where(eq(t.closingRounds.activityId, id)))[0]!

  it('without names leave nothing that ties an answer to who gave it: not by order, by time, by id, nor by what was stored beside it', async () => {
    const order = WHO.map((who, n) => ({ who, n }))
    const random = seededRandom(4)
    const other = [...order].sort(() => random() - 0.5)
    const before = await snapshot()
    for (const [id, list] of [[world.dredge.id, order], [world.calm.id, other]] as const) {
      expect((await ask(id, false)).status).toBe(200)
      for (const { who, n } of list) expect((await answer(who, id, n)).body.mine).toEqual({ answered: true, answers: {} })
    }
    // the same people with the same answers, in whatever order they came, are the same row
    const [a, b] = [await stored(world.dredge.id), await stored(world.calm.id)]
    expect(a.takers).toEqual([...a.takers].sort())
    expect({ takers: b.takers, urns: JSON.stringify(b.urns) }).toEqual({ takers: a.takers, urns: JSON.stringify(a.urns) })
    // and nothing else was written anywhere by answering
    const after = await snapshot()
    expect(Object.entries(after).filter(([table, n]) => n !== before[table]).map(([table]) => table)).toEqual(['closing_rounds'])
    const row = JSON.stringify((await world.db.execute(sql`select to_jsonb(r) as row from closing_rounds r where activity_id = ${world.dredge.id}`))[0])
    expect(Object.keys((JSON.parse(row) as { row: object }).row).sort()).toEqual(['activity_id', 'closes_at', 'named', 'opens_at', 'questions', 'seminar_id', 'takers', 'told_at', 'urns', 'version'])
    // answered once, however often it is sent
    const again = await answer('liv', world.dredge.id, 3)
    expect(again.status).toBe(200)
    expect(JSON.stringify((await stored(world.dredge.id)).urns)).toBe(JSON.stringify(a.urns))
  })

  /** Rows of every table; but sign-ins, and what the queue tells of when questions open, which is not answering. */
  async function snapshot(): Promise<Record<string, number>> {
    const tables = await world.db.execute<{ name: string }>(sql`select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE' and table_name not in ('sessions', 'sign_in_attempts', 'notices', 'mails') order by 1`)
    const out: Record<string, number> = {}
    for (const { name } of tables) out[name] = (await world.db.execute<{ n: number }>(sql`select count(*)::int as n from ${sql.identifier(name)}`))[0]!.n
    return out
  }

  it('without names are shown to nobody before they close, and never of fewer than four', async () => {
    const view = (await ines.json<ClosingView>('GET', path(world.dredge.id))).body
    expect(view.staff).toMatchObject({ answered: 6, results: null, people: [], mayChange: false })
    expect((await ines.send('GET', `${path(world.dredge.id)}/export`)).status).toBe(409)
    await world.db.update(t.closingRounds).set({ closesAt: new Date(NOW - 1000) }).where(eq(t.closingRounds.activityId, world.dredge.id))
    const closed = (await ines.json<ClosingView>('GET', path(world.dredge.id))).body
    expect(closed.staff!.results).toMatchObject([{ answered: 6, counts: [2, 1, 1, 1, 1], median: 2.5 }, { counts: [2, 2, 2] }, { answered: 6, answers: WHO.map((_, n) => `Words ${n}`) }])
    expect(JSON.stringify(closed)).not.toContain((await world.enrolment('liv')).id)
    const csv = await (await ines.send('GET', `${path(world.dredge.id)}/export`)).text()
    expect(csv).toContain('What else?,Words 3,1')
    expect(csv).not.toMatch(/Brandt|Corvo|liv@/)
    const rows = await stored(world.dredge.id)
    await world.db.update(t.closingRounds).set({ takers: rows.takers.slice(0, 3) }).where(eq(t.closingRounds.activityId, world.dredge.id))
    expect((await ines.json<ClosingView>('GET', path(world.dredge.id))).body.staff!.results).toBeNull()
    expect((await answer('liv', world.dredge.id, 1)).body).toMatchObject({ code: 'closed' })
  })

  it('stand as they are from the first answer on, names and all; the end can be moved', async () => {
    const now = (await ines.json<ClosingView>('GET', path(world.calm.id))).body
    const change = (more: object) => ines.json<{ code?: string }>('PUT', path(world.calm.id), { questions, named: false, opensAt: now.round!.opensAt, closesAt: now.round!.closesAt, baseVersion: now.round!.version, ...more })
    expect((await change({ named: true })).body.code).toBe('answered')
    expect((await change({ questions: questions.slice(1) })).body.code).toBe('answered')
    expect((await ines.send('DELETE', path(world.calm.id))).status).toBe(409)
    expect((await change({ closesAt: hours(5) })).status).toBe(200)
    expect((await change({ closesAt: hours(6) })).body.code).toBe('changed') // its base is outdated now
  })

  it('with names can be changed until they close, and say who answered what', async () => {
    expect((await ask(world.roll.id, true)).status).toBe(200)
    await answer('liv', world.roll.id, 0)
    expect((await answer('liv', world.roll.id, 4)).body.mine).toMatchObject({ answered: true, answers: { [scale]: 5 } })
    const view = (await ines.json<ClosingView>('GET', path(world.roll.id))).body
    expect(view.staff).toMatchObject({ answered: 1, people: [{ name: 'Liv Brandt', answers: { [scale]: 5, [open]: 'Words 4' } }] })
    expect((await students.get('nico')!.json<ClosingView>('GET', path(world.roll.id))).body).toMatchObject({ staff: null, mine: { answered: false, answers: {} } })
    expect(await (await ines.send('GET', `${path(world.roll.id)}/export`)).text()).toContain('Liv Brandt,5,two,Words 4')
  })

  it('are nobody’s but staff’s before they open; then each student is told, once', async () => {
    expect((await ask(world.walls.id, false, { opensAt: hours(1), closesAt: hours(48) })).status).toBe(200)
    expect((await students.get('liv')!.json('GET', path(world.walls.id))).status).toBe(404)
    expect((await answer('liv', world.walls.id, 1)).status).toBe(404)
    const n = await world.db.$count(t.notices, eq(t.notices.activityId, world.walls.id))
    const told = await Promise.all([0, 1].map(() => tellClosing(world.db, new Date(NOW + 2 * 3_600_000))))
    expect(told.reduce((a, b) => a + b, 0)).toBeGreaterThan(0)
    const after = await world.db.$count(t.notices, eq(t.notices.activityId, world.walls.id))
    expect(after).toBeGreaterThan(n)
    await tellClosing(world.db, new Date(NOW + 3 * 3_600_000))
    expect(await world.db.$count(t.notices, eq(t.notices.activityId, world.walls.id))).toBe(after)
  })
})
