import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Client } from '#server/testing/server'
import { until } from '#server/testing/until'
import { email, testWorld, type World } from '#server/testing/world'

let world: World
beforeAll(async () => {
  world = await testWorld({ own: true, minutes: false })
})
afterAll(() => world.close())

describe('while one table is locked', () => {
  it('people sign in; whoever needs it is told in words, and all is well once it is free', async () => {
    const liv = await world.as('liv')
    const asked = `/api/activities/${world.breakwater.id}/contributions`
    expect((await liv.send('GET', asked)).status).toBe(200)
    const answers = await world.db.transaction(async tx => {
      await tx.execute(sql`lock table contributions in access exclusive mode`)
      const waiting = Array.from({ length: 15 }, () => liv.send('GET', asked))
      // every connection of the pages waits for the table
      await until('ten waiting connections', async () => {
        const { rows } = await tx.execute<{ waiting: number }>(
          sql`select count(*)::int as waiting from pg_stat_activity where wait_event_type = 'Lock' and datname = current_database()`,
        )
        return rows[0]!.waiting >= 10
      })
      expect((await new Client(world.address).signIn(email('malin'))).cookies).not.toBe('')
      expect((await liv.send('GET', '/api/session')).status).toBe(200)
      return Promise.all(waiting)
    })
    for (const answer of answers) {
      expect(answer.status).toBe(503)
      expect(await answer.json()).toMatchObject({
        code: 'busy',
        detail: expect.stringContaining('Nothing was changed'),
      })
    }
    expect((await liv.send('GET', asked)).status).toBe(200)
  })
})
