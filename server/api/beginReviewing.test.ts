import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { FIVE, peerReviewIn, type PeerReviewActs, type Refused } from '#server/testing/peerReview'
import { TEST_NOW } from '#server/testing/server'
import { testWorld, words, type World } from '#server/testing/world'

interface Begun extends Refused {
  readonly version: number
  readonly before: { readonly opensAt: string; readonly phases: ReadonlyArray<{ readonly endsAt: string }> }
}

interface Planned {
  readonly opensAt: string
  readonly phases: ReadonlyArray<{
    readonly name: string
    readonly startsAt: string
    readonly endsAt: string
  }>
}

describe('a peer review that is not left to its dates', () => {
  let world: World
  let { base, as, times, handIn, peers, staff } = {} as PeerReviewActs
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ;({ base, as, times, handIn, peers, staff } = await peerReviewIn(world))
    for (const who of FIVE) expect((await handIn(who, `By somebody. ${words(280)}`)).status).toBe(200)
  })
  afterAll(() => world.close())
  const begin = async (act: 'endHandIn' | 'beginReviewing', { who = 'ines', key = v7() } = {}) =>
    (await as(who)).json<Begun>('POST', `${base}/begin`, { key, act, tell: false })

  it('ends hand-in at once, reviewing with it, says why it cannot, and takes it back to the last detail', async () => {
    await times(-48, -48, -200) // hours ago: hand-in goes on for two days, reviewing begins with its end
    expect((await begin('endHandIn', { who: 'liv' })).status).toBe(403)
    expect((await begin('endHandIn', { who: 'henrik' })).status).toBe(403)
    const early = await begin('beginReviewing')
    expect([early.status, early.body.code]).toEqual([409, 'handInOpen'])
    const planned = await peers()
    expect([planned.handInEnded, planned.reviewBegun]).toEqual([false, false])

    const key = v7()
    const ended = await begin('endHandIn', { key })
    expect(ended.status).toBe(200)
    expect((await begin('endHandIn', { key })).body).toEqual(ended.body) // sent again: answered again
    const now = await peers()
    expect([now.handInEnded, now.reviewBegun, now.reviewEndsAt]).toEqual([true, true, planned.reviewEndsAt])
    const twice = await begin('endHandIn')
    expect([twice.status, twice.body.detail]).toEqual([409, expect.stringMatching(/has ended already/)])

    const back = await (
      await as('ines')
    ).json<Refused>('PUT', `${base}/schedule`, {
      ...{ key: v7(), baseVersion: ended.body.version, tell: false },
      ...ended.body.before,
    })
    expect(back.status).toBe(200)
    const again = await peers()
    expect([again.handInEndsAt, again.reviewStartsAt]).toEqual([planned.handInEndsAt, planned.reviewStartsAt])
  })

  it('frees readers who were assigned meanwhile when hand-in goes on again, unless one has opened a work', async () => {
    await times(-48, -48, -200)
    const ended = await begin('endHandIn')
    expect((await staff('deal', { key: v7(), seed: 5 })).status).toBe(200)
    expect((await peers()).allocations).toHaveLength(10)
    const back = async (baseVersion: number) =>
      (await as('ines')).json<Begun>('PUT', `${base}/schedule`, {
        ...{ key: v7(), baseVersion, tell: false },
        ...ended.body.before,
      })
    const again = await back(ended.body.version)
    expect(again.status).toBe(200)
    const free = await peers()
    expect([free.dealtAt, free.allocations]).toEqual([null, []])

    // those whose work has been opened keep it, and so do all others: nothing is dealt twice
    const second = await begin('endHandIn')
    expect((await staff('deal', { key: v7(), seed: 6 })).status).toBe(200)
    const [first] = (await peers()).allocations
    const reader = (await peers()).people.find(p => p.id === first!.reviewerId)!
    const client = await as(reader.givenName.toLowerCase())
    expect((await client.send('PUT', `/api/reviews/${first!.id}/opened`)).status).toBe(200)
    expect((await back(second.body.version)).status).toBe(200)
    expect((await peers()).allocations).toHaveLength(10)
    await world.db.delete(t.allocations).where(eq(t.allocations.activityId, world.essays.id))
    await world.db
      .update(t.peerReviews)
      .set({ dealtAt: null })
      .where(eq(t.peerReviews.activityId, world.essays.id))
  })

  it('begins reviewing before its day once hand-in is over', async () => {
    await times(10, -72, -200)
    expect((await peers()).reviewBegun).toBe(false)
    expect((await begin('beginReviewing')).status).toBe(200)
    const { reviewBegun, handInEnded } = await peers()
    expect([reviewBegun, handInEnded]).toEqual([true, true])
    expect((await begin('beginReviewing')).body.code).toBe('begun')
  })

  it('begins reviewing among teammates before its day, and the activity with it', async () => {
    const { teammates } = world
    const address = `/api/activities/${teammates.id}`
    const ines = await as('ines')
    const plan = async () =>
      (await ines.json<{ version: number; body: Planned }>('GET', `${address}/plan`)).body
    await world.db.update(t.activities).set({ state: 'draft' }).where(eq(t.activities.id, teammates.id))
    const early = await ines.json<Refused>('POST', `${address}/begin`, {
      ...{ key: v7(), act: 'beginReviewing', tell: false },
    })
    expect([early.status, early.body.detail]).toEqual([409, expect.stringMatching(/Publish it first/)])
    await world.db.update(t.activities).set({ state: 'published' }).where(eq(t.activities.id, teammates.id))
    const { version, body } = await plan()
    const later = (days: number) => new Date(Date.parse(TEST_NOW) + days * 86_400_000).toISOString()
    const phases = body.phases.map(p => ({ ...p, startsAt: later(2), endsAt: later(9) }))
    const put = { key: v7(), baseVersion: version, tell: false, opensAt: later(2), phases }
    expect((await ines.send('PUT', `${address}/schedule`, put)).status).toBe(200)

    const begun = await ines.json<Begun>('POST', `${address}/begin`, {
      ...{ key: v7(), act: 'beginReviewing', tell: false },
    })
    expect(begun.status).toBe(200)
    const { body: now } = await plan()
    expect([now.opensAt, now.phases[0]!.startsAt, now.phases[0]!.endsAt]).toEqual([
      new Date(TEST_NOW).toISOString(),
      new Date(TEST_NOW).toISOString(),
      later(9),
    ])
    const back = { key: v7(), baseVersion: begun.body.version, tell: false, ...begun.body.before }
    expect((await ines.send('PUT', `${address}/schedule`, back)).status).toBe(200)
    expect((await plan()).body.opensAt).toBe(later(2))
  })

  it('takes an assigning back while nobody has opened anything, and not afterwards', async () => {
    await times(10, -72, -200)
    expect((await staff('deal', { key: v7(), seed: 3 })).status).toBe(200)
    expect((await peers()).allocations).toHaveLength(10)
    expect((await staff('deal', {}, 'DELETE')).status).toBe(200)
    const none = await peers()
    expect([none.dealtAt, none.allocations]).toEqual([null, []])

    expect((await staff('deal', { key: v7(), seed: 4 })).status).toBe(200)
    const [first] = (await peers()).allocations
    const reader = (await peers()).people.find(p => p.id === first!.reviewerId)!
    await times(10, 1, -200)
    const client = await as(reader.givenName.toLowerCase())
    expect((await client.send('PUT', `/api/reviews/${first!.id}/opened`)).status).toBe(200)
    const late = await staff('deal', {}, 'DELETE')
    expect([late.status, late.body.detail]).toEqual([409, expect.stringMatching(/opened already/)])
    const view = await peers()
    expect(view.allocations).toHaveLength(10)

    // what was only looked at can be given to somebody else; whoever has it open is told when they write
    const pair = { reviewerId: first!.reviewerId, entryId: first!.entryId }
    const moved = { key: v7(), baseVersion: view.version, add: [], remove: [pair] }
    expect((await staff('pairs', moved, 'PUT')).status).toBe(200)
    const nothing = { points: {}, remarks: {}, answers: {}, passages: [], private: '', baseVersion: null }
    const gone = await client.json<Refused>('PUT', `/api/reviews/${first!.id}`, nothing)
    expect([gone.status, gone.body.detail]).toEqual([404, expect.stringMatching(/has reassigned it/)])
  })
})
