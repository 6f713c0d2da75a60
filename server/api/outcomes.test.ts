import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { LibraryView, OutcomeView } from '#shared/marking/rubric'

interface Refused {
  readonly code: string
  readonly fields?: Record<string, string>
  readonly theirs?: OutcomeView
}

describe('learning outcomes that change', () => {
  let world: World
  let ines: Client
  let base: string
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ines = await world.as('ines')
    base = `/api/seminars/${world.seminar.id}`
  })
  afterAll(() => world.close())
  const library = async () => (await ines.json<LibraryView>('GET', `${base}/library`)).body.outcomes
  const add = (body: object) => ines.json<OutcomeView & Refused>('POST', `${base}/outcomes`, body)
  const change = (o: OutcomeView, part: object) =>
    ines.json<OutcomeView & Refused>('PUT', `${base}/outcomes/${o.id}`, {
      ...{ key: v7(), baseVersion: o.version },
      ...{ code: o.code, statement: o.statement, retired: o.retired },
      ...part,
    })

  it('are added at the end, once however often it is asked, and refused at the field that is wrong', async () => {
    const before = await library()
    const write = { key: v7(), code: ' SEA 9 ', statement: 'Weighs a toll against who pays it.' }
    const added = await add(write)
    expect([added.status, added.body.code, added.body.criteria]).toEqual([200, 'SEA 9', 0])
    expect((await add(write)).body).toEqual(added.body)
    expect((await library()).map(o => o.code)).toEqual([...before.map(o => o.code), 'SEA 9'])
    const empty = await add({ key: v7(), code: '', statement: '   ' })
    expect([empty.status, Object.keys(empty.body.fields!).sort()]).toEqual([422, ['code', 'statement']])
  })

  it('are worded anew for every criterion and report; the identifier the college gave stays', async () => {
    const o = (await library()).find(x => x.criteria > 0)!
    const changed = await change(o, { statement: 'Argues from a source, and says how far it goes.' })
    expect([changed.status, changed.body.identifier, changed.body.criteria, changed.body.version]).toEqual([
      200,
      o.identifier,
      o.criteria,
      o.version + 1,
    ])
    const { body } = await ines.json<{ outcomes: OutcomeView[] }>('GET', `${base}/outcomes`)
    expect(body.outcomes.find(x => x.id === o.id)!.statement).toBe(changed.body.statement)
    // from the words before: both are kept
    const late = await change(o, { code: 'MINE' })
    expect([late.status, late.body.code, late.body.theirs]).toEqual([409, 'changedMeanwhile', changed.body])
  })

  it('are retired and taken up again, with what was judged by them untouched', async () => {
    const judgedById = async () => {
      type Report = { outcomes: Array<{ id: string; judged: number }> }
      const { body } = await ines.json<Report>('GET', `${base}/outcomes`)
      return new Map(body.outcomes.map(x => [x.id, x.judged]))
    }
    const all = await judgedById()
    const o = (await library()).find(x => all.get(x.id)! > 0)!
    const judged = async () => (await judgedById()).get(o.id)!
    const before = await judged()
    expect(before).toBeGreaterThan(0)
    const retired = await change(o, { retired: true })
    expect([retired.body.retired, await judged()]).toEqual([true, before])
    const linked = await world.db.$count(t.criterionOutcomes, eq(t.criterionOutcomes.outcomeId, o.id))
    expect(linked).toBe(o.criteria)
    const again = await change(retired.body, { retired: false })
    expect(again.body).toEqual({ ...o, version: o.version + 2 })
  })

  it('of another seminar are not there', async () => {
    const o = (await library())[0]!
    const elsewhere = await ines.json<Refused>('PUT', `${base}/outcomes/${v7()}`, {
      ...{ key: v7(), baseVersion: 1, code: o.code, statement: o.statement, retired: true },
    })
    expect(elsewhere.status).toBe(404)
  })
})
