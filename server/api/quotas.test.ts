import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { clearOrphans } from '#server/services/files/orphans'
import { listenTo } from '#server/testing/listenTo'
import { until } from '#server/testing/until'
import { doc, testWorld, type World } from '#server/testing/world'

const DAY = 86_400_000

describe('what one person may take of everybody’s', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
  })
  afterAll(() => world.close())

  it('is forty streams at once: the next is refused, and free once one is closed; others listen', async () => {
    const liv = await world.as('liv')
    const path = `/api/activities/${world.dredge.id}/live`
    const listening = []
    for (let n = 0; n < 40; n++) listening.push(await listenTo(liv, world.dredge.id))
    const refused = await liv.json<{ detail: string }>('GET', path)
    expect([refused.status, refused.body.detail]).toEqual([
      429,
      'Jovrel is open in too many tabs. Close some of them.',
    ])
    const nico = await listenTo(await world.as('nico'), world.dredge.id)
    await nico.close()
    await listening.pop()!.close()
    await until('a free place', async () => {
      const answer = await liv.send('GET', path)
      await answer.body!.cancel()
      return answer.status === 200
    })
    for (const stream of listening) await stream.close()
  })

  it('is 200 unfinished texts in a seminar: those there are go on being saved, one more is refused in words', async () => {
    const rasmus = await world.as('rasmus')
    const enrolment = await world.enrolment('rasmus')
    const target = await world.contribution('kadri', world.breakwater.id)
    const save = (parentId: string | null, baseVersion: number | null) =>
      rasmus.json<{ code?: string; version?: number }>(
        'PUT',
        `/api/activities/${world.breakwater.id}/draft`,
        {
          parentId,
          doc: doc('Half a thought.'),
          baseVersion,
        },
      )
    const first = await save(target.id, null)
    expect(first.status).toBe(200)
    const mine = and(eq(t.contributions.authorId, enrolment.id), eq(t.contributions.state, 'draft'))
    const [draft] = await world.db.select().from(t.contributions).where(mine)
    const more = 200 - (await world.db.$count(t.contributions, mine))
    await world.db
      .insert(t.contributions)
      .values(Array.from({ length: more }, () => ({ ...draft!, id: v7(), slot: v7() })))
    const next = await save((await world.contribution('liv', world.breakwater.id)).id, null)
    expect([next.status, next.body.code]).toEqual([409, 'tooManyDrafts'])
    expect((await save(target.id, first.body.version!)).status).toBe(200)
  })

  it('is nothing that belongs to nothing for a month: such uploads go, whatever is used or named stays', async () => {
    const [liv, ines] = [await world.enrolment('liv'), await world.enrolment('ines')]
    const work = await world.contribution('liv', world.breakwater.id)
    const upload = async (name: string, daysAgo: number, madeBy = liv.id) => {
      const madeAt = new Date(Date.now() - daysAgo * DAY)
      const values = { seminarId: world.seminar.id, madeBy, name, type: 'image/png', size: 3, madeAt }
      const [file] = await world.db
        .insert(t.files)
        .values({ ...values, bytes: Buffer.from('png') })
        .returning()
      return file!.id
    }
    const forgotten = await upload('forgotten.png', 31)
    const kept = {
      recent: await upload('recent.png', 29),
      staffs: await upload('staffs.png', 400, ines.id),
      attached: await upload('attached.png', 400),
      named: await upload('named.png', 400),
    }
    await world.db.insert(t.contributionFiles).values({
      seminarId: world.seminar.id,
      contributionId: work.id,
      fileId: kept.attached,
      position: 0,
    })
    const image = { type: 'image', attrs: { src: `/api/files/${kept.named}`, alt: '' } }
    await world.db
      .update(t.contributions)
      .set({ doc: { type: 'doc', content: [image] } })
      .where(eq(t.contributions.id, work.id))
    expect(await clearOrphans(world.db, new Date())).toBe(1)
    const left = (await world.db.select({ id: t.files.id }).from(t.files)).map(f => f.id)
    expect(left).toEqual(expect.arrayContaining(Object.values(kept)))
    expect(left).not.toContain(forgotten)
  })
})
