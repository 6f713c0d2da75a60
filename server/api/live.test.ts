import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { Client, testServer } from '#server/testing/server'
import { listenTo } from '#server/testing/listenTo'
import { until } from '#server/testing/until'
import { doc, email, testWorld, words, type World } from '#server/testing/world'

describe('what open pages are told as it happens', () => {
  let world: World
  let second: Awaited<ReturnType<typeof testServer>> // another process on the same database
  beforeAll(async () => {
    world = await testWorld()
    second = await testServer(world.databaseUrl)
  })
  afterAll(async () => {
    await second.stop()
    await world.close()
  })
  const there = (who: string) => new Client(second.address).signIn(email(who))
  const post = (client: Client, body: Record<string, unknown>) =>
    client.json<{ id: string }>('POST', `/api/activities/${world.dredge.id}/contributions`, {
      key: v7(),
      parentId: null,
      ...body,
    })

  it('reaches readers of every process, each as they may read; those who have not written hear nothing at all', async () => {
    const [liv, ines, paz, anselm] = await Promise.all([
      there('liv'),
      world.as('ines'),
      there('paz'),
      there('anselm'),
    ])
    const streams = await Promise.all([liv, ines, paz, anselm].map(c => listenTo(c, world.dredge.id)))
    const [ofLiv, ofInes, ofPaz, ofAnselm] = streams as [
      (typeof streams)[0],
      (typeof streams)[0],
      (typeof streams)[0],
      (typeof streams)[0],
    ]
    const kadri = await world.as('kadri')
    const target = await world.contribution('rasmus', world.dredge.id)
    const posted = await post(kadri, {
      parentId: target.id,
      doc: doc('And whose silt is it on the other side?'),
    })
    await until('a reader of another process hears', async () => ofLiv.heard.length > 0)
    await until('staff hear', async () => ofInes.heard.length > 0)
    expect(ofLiv.heard[0]).toMatchObject({
      kind: 'contribution',
      contribution: {
        id: posted.body.id,
        view: 'whole',
        author: { name: 'Kadri Ilves', isMe: false },
        isNew: true,
      },
    })
    // a withdrawal takes it away again
    await kadri.send('PUT', `/api/contributions/${posted.body.id}/withdrawn`, { withdrawn: true })
    await until('the withdrawal is heard', async () => ofLiv.heard.at(-1)?.kind === 'gone')
    expect(ofLiv.heard.at(-1)).toEqual({ kind: 'gone', id: posted.body.id })
    // one of the waiting writes: that one's page is told to fetch, the other's still nothing
    const own = await post(paz, { doc: doc(words(205)) })
    await until("the writer's own page is told to fetch", async () => ofPaz.heard.length > 0)
    expect(ofPaz.heard).toEqual([{ kind: 'opened' }])
    await until('it is heard', async () => ofLiv.raw().includes(own.body.id))
    await post(kadri, { parentId: own.body.id, doc: doc('You are back!') })
    await until('it is heard', async () => ofPaz.raw().includes('You are back!'))
    expect(ofAnselm.raw()).toBe('[]')
    await Promise.all(streams.map(s => s.close()))
  })

  it("never carries a journal to anyone but its author and staff, nor an alias's name", async () => {
    const [notebook] = await world.db
      .select()
      .from(t.activities)
      .where(eq(t.activities.title, 'Harbour notebook'))
    const [liv, teodora, ines] = await Promise.all([there('liv'), there('teodora'), there('ines')])
    const streams = await Promise.all([liv, teodora, ines].map(c => listenTo(c, notebook!.id)))
    const mine = (await teodora.thread(`/api/activities/${notebook!.id}/contributions`)).body
      .contributions[0]!
    const staff = await world.as('ines')
    await staff.json('POST', `/api/activities/${notebook!.id}/contributions`, {
      key: v7(),
      parentId: mine.id,
      doc: doc('Between the two of us.'),
    })
    await until('it is heard', async () => streams[1]!.raw().includes('Between the two of us.'))
    await until('it is heard', async () => streams[2]!.raw().includes('Between the two of us.'))
    expect(streams[0]!.raw()).toBe('[]')
    await Promise.all(streams.map(s => s.close()))
    await world.db
      .update(t.activities)
      .set({ settings: { ...world.dredge.settings, writeFirst: false, namesHidden: true } })
      .where(eq(t.activities.id, world.dredge.id))
    const stream = await listenTo(liv, world.dredge.id)
    await post(await world.as('nico'), { doc: doc('Nobody knows it is me.') })
    await until('it is heard', async () => stream.raw().includes('Nobody knows it is me.'))
    expect(stream.raw()).not.toContain('Corvo')
    expect(stream.raw()).not.toContain((await world.enrolment('nico')).id)
    await stream.close()
  })
})
