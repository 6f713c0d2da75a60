import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { showDue } from '#server/services/contributing/writing/postContribution'
import type { ContributionView, ThreadView, WholeContribution } from '#shared/contributing/thread'
import type { ComposerView } from '#shared/planning/composer'
import { doc, testWorld, type World } from '#server/testing/world'

const key = () => v7()
const wholeOf = (t: ThreadView): WholeContribution[] =>
  t.contributions.filter((c): c is WholeContribution => c.view === 'whole')

describe('what becomes of a contribution', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())
  const find = async (title: string) =>
    (await world.db.select().from(t.activities).where(eq(t.activities.title, title)))[0]!
  const thread = async (who: string, id: string) =>
    (await (await world.as(who)).thread(`/api/activities/${id}/contributions`)).body
  const post = async (who: string, id: string, body: Record<string, unknown>) =>
    (await world.as(who)).json<{ id: string; state: string; fields?: Record<string, string> }>(
      'POST',
      `/api/activities/${id}/contributions`,
      { key: key(), parentId: null, ...body },
    )
  async function set(id: string, change: Record<string, unknown>) {
    const ines = await world.as('ines')
    const view = await ines.json<ComposerView>('GET', `/api/activities/${id}/plan`)
    const answer = await ines.json('PATCH', `/api/activities/${id}/plan`, {
      key: key(),
      baseVersion: view.body.version,
      change,
      tell: false,
    })
    expect(answer.status, JSON.stringify(answer.body)).toBe(200)
  }
  async function make(kind: string, change: Record<string, unknown>): Promise<string> {
    const ines = await world.as('ines')
    const id = key()
    await ines.send('POST', `/api/seminars/${world.seminar.id}/activities`, {
      id,
      kind,
      week: 6,
      unitId: null,
      templateId: null,
    })
    await set(id, {
      title: `A ${kind} of its own`,
      brief: doc('What do you see?'),
      writeFirst: false,
      ...change,
    })
    const view = await ines.json<ComposerView>('GET', `/api/activities/${id}/plan`)
    expect(
      (
        await ines.send('POST', `/api/activities/${id}/publish`, {
          key: key(),
          baseVersion: view.body.version,
          opens: 'now',
          tell: false,
        })
      ).status,
    ).toBe(200)
    return id
  }

  it('shows a timed entry when its time has come, to nobody before', async () => {
    const quay = await find('Letters from the quay')
    const at = '2026-10-14T10:00:00.000Z'
    const posted = await post('malin', quay.id, {
      slot: 'later',
      title: 'Two paces on',
      doc: doc('From here one sees the other clock.'),
      showAt: at,
    })
    expect(posted.body.state).toBe('scheduled')
    expect(wholeOf(await thread('malin', quay.id)).find(c => c.id === posted.body.id)).toMatchObject({
      state: 'scheduled',
      showAt: at,
      title: 'Two paces on',
    })
    for (const who of ['liv', 'ines'])
      expect(JSON.stringify(await thread(who, quay.id))).not.toContain('the other clock')
    expect(await showDue(world.db, new Date('2026-10-14T09:59:00Z'))).toBe(0)
    expect(await showDue(world.db, new Date('2026-10-14T10:00:30Z'))).toBe(1)
    const shown = wholeOf(await thread('liv', quay.id)).find(c => c.id === posted.body.id)!
    expect(shown).toMatchObject({ state: 'shown', shownAt: at, isNew: true })
    expect(shown.seq).toBe(Math.max(...wholeOf(await thread('liv', quay.id)).map(c => c.seq!)))
    expect((await post('malin', world.dredge.id, { doc: doc('x y z'), showAt: at })).status).toBe(422)
  })

  it('marks exit notes done or not, to the writer and staff alone, each change written down; one answer each', async () => {
    const stair = await find('The stair at noon')
    const [answer] = wholeOf(await thread('liv', stair.id))
    const henrik = await world.as('henrik')
    for (const done of [true, false])
      expect(
        (await henrik.send('PUT', `/api/contributions/${answer!.id}/mark`, { done, points: null })).status,
      ).toBe(200)
    expect(wholeOf(await thread('liv', stair.id))[0]!.done).toBe(false)
    expect(wholeOf(await thread('ines', stair.id)).filter(c => c.done === false)).toHaveLength(1)
    expect((await thread('kadri', stair.id)).contributions).toHaveLength(1)
    expect((await post('liv', stair.id, { doc: doc('And another thing.') })).body.fields!.doc).toMatch(
      /in already/,
    )
    const trail = await world.db.select().from(t.auditTrail).where(eq(t.auditTrail.subjectId, answer!.id))
    expect(trail.filter(a => a.act === 'contributionMarked').map(a => a.detail)).toEqual([
      { from: null, to: { done: true, points: null } },
      { from: { done: true, points: null }, to: { done: false, points: null } },
    ])
  })

  it('tells each exactly what is new to them, also when two post at the same instant', async () => {
    const id = await make('discussion', {})
    const visit = async (who: string) => {
      const seen = await thread(who, id)
      await (await world.as(who)).send('PUT', `/api/activities/${id}/visit`, { seq: seen.lastSeq })
      return seen
    }
    await post('kadri', id, { doc: doc('First.') })
    await visit('liv')
    await Promise.all(
      ['nico', 'oona', 'abena', 'emrys', 'malin', 'idris'].map(who =>
        post(who, id, { doc: doc(`By ${who}.`) }),
      ),
    )
    const orders = await Promise.all(
      ['liv', 'kadri', 'ines', 'observer'].map(async who =>
        (await thread(who, id)).contributions.map((c: ContributionView) => c.id),
      ),
    )
    for (const order of orders) expect(order).toEqual(orders[0]) // the same for every reader
    expect(wholeOf(await thread('liv', id)).filter(c => c.isNew)).toHaveLength(6)
    await visit('liv')
    expect(wholeOf(await thread('liv', id)).filter(c => c.isNew)).toHaveLength(0)
    // an older page that says so late does not make read things new
    await (await world.as('liv')).send('PUT', `/api/activities/${id}/visit`, { seq: 1 })
    expect(wholeOf(await thread('liv', id)).filter(c => c.isNew)).toHaveLength(0)
  })

  it('leaves an author their own withdrawn text, and what staff have withdrawn stays so', async () => {
    const id = await make('discussion', { withdrawMinutes: 30 })
    const {
      body: { id: own },
    } = await post('liv', id, { doc: doc('Taken back by myself.') })
    const [liv, henrik] = await Promise.all([world.as('liv'), world.as('henrik')])
    const withdraw = (client: typeof liv, withdrawn: boolean) =>
      client.json<{ fields?: Record<string, string> }>('PUT', `/api/contributions/${own}/withdrawn`, {
        withdrawn,
      })
    await withdraw(liv, true)
    expect(wholeOf(await thread('liv', id))).toMatchObject([{ withdrawn: true, mayPutBack: true }])
    expect((await thread('kadri', id)).contributions).toEqual([])
    expect((await withdraw(liv, false)).status).toBe(200)
    await withdraw(henrik, true)
    const [seen] = wholeOf(await thread('liv', id))
    expect(seen).toMatchObject({ withdrawn: true, mayPutBack: false, html: '<p>Taken back by myself.</p>' })
    const refused = await withdraw(liv, false)
    expect([refused.status, refused.body.fields!.doc]).toEqual([
      422,
      expect.stringMatching(/instructor has withdrawn this/),
    ])
    expect((await thread('kadri', id)).contributions).toEqual([])
    expect((await withdraw(henrik, false)).status).toBe(200)
  })

  it('keeps names out of feeds unless their owners agreed', async () => {
    const quay = await find('Letters from the quay')
    const liv = await world.as('liv')
    const { body } = await liv.json<{ address: string }>('POST', `/api/activities/${quay.id}/feed`)
    const read = async () => (await fetch(new URL(new URL(body.address).pathname, world.address))).text()
    expect(await read()).toContain('fourteen masts') // the words are there
    for (const name of ['Nico Corvo', 'Kadri Ilves', 'Ines Okafor-Lind'])
      expect(await read()).not.toContain(name)
    await (
      await world.as('kadri')
    ).send('PUT', `/api/seminars/${world.seminar.id}/named-in-feeds`, { named: true })
    expect(await read()).toContain('Kadri Ilves')
    expect(await read()).not.toContain('Nico Corvo')
    // a new address makes the old one worthless
    await liv.send('POST', `/api/activities/${quay.id}/feed`)
    expect((await fetch(new URL(new URL(body.address).pathname, world.address))).status).toBe(404)
  })

  it('keeps what was written when the kind or the layout changes', async () => {
    const quay = await find('Letters from the quay')
    const before = wholeOf(await thread('ines', quay.id)).map(c => [c.id, c.html])
    await set(quay.id, { layout: 'own', indexBy: 'month' })
    await set(quay.id, { layout: 'stream' })
    expect(wholeOf(await thread('ines', quay.id)).map(c => [c.id, c.html])).toEqual(before)
  })
})
