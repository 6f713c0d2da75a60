import { and, eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { clearAccessLog } from '#server/services/people/accessLog'
import { Client } from '#server/testing/server'
import { until } from '#server/testing/until'
import { email, testWorld, type World } from '#server/testing/world'
import type { AccessLog } from '#shared/people/accessLog'

let world: World
let owner: Client
beforeAll(async () => {
  world = await testWorld({ minutes: false })
  await world.db
    .update(t.persons)
    .set({ foundsSeminars: true })
    .where(eq(t.persons.email, email('ines')))
  owner = await world.as('ines')
})
afterAll(() => world.close())

const log = async (query = '') => (await owner.json<AccessLog>('GET', `/api/access-log${query}`)).body.entries

describe('the access log', () => {
  it('says who signed in, and which addresses were tried with a wrong password', async () => {
    await new Client(world.address).send('POST', '/api/session', {
      email: email('liv'),
      password: 'not hers',
    })
    await world.as('liv')
    const [done, refused] = await log(`?find=${email('liv')}&act=signIn`)
    expect(done).toMatchObject({ done: true, who: 'Liv Brandt', about: email('liv') })
    expect(refused).toMatchObject({ done: false, who: null, about: email('liv') })
    expect(done!.client).toMatch(/127\.0\.0\.1|::1/)
  })

  it('says what was taken away, by whom and of which seminar', async () => {
    const seminar = `/api/seminars/${world.seminar.id}`
    await owner.send('GET', `${seminar}/results?form=csv`)
    await owner.send('GET', `${seminar}/archive`).then(a => a.arrayBuffer())
    await owner.send('GET', `/api/activities/${world.breakwater.id}/export?as=md`)
    const acts = (await log('?find=Harbour Cities')).map(e => [e.act, e.done, e.seminar])
    for (const act of ['marksTaken', 'archiveTaken', 'exported'])
      expect(acts).toContainEqual([act, true, world.seminar.title])
  })

  it('says what was refused to somebody who is signed in, whatever it was', async () => {
    const liv = await world.as('liv')
    expect((await liv.send('GET', `/api/activities/${world.breakwater.id}/desk`)).status).toBe(403)
    expect((await liv.send('GET', `/api/seminars/${world.seminar.id}/archive`)).status).toBe(403)
    const entries = await log(`?find=${email('liv')}`)
    expect(entries).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ act: 'refused', about: `GET /api/activities/${world.breakwater.id}/desk` }),
        expect.objectContaining({ act: 'archiveTaken', done: false }),
      ]),
    )
    expect((await liv.send('GET', '/api/access-log')).status).toBe(403)
    expect((await world.nobody.send('GET', '/api/access-log')).status).toBe(401)
  })

  it('holds no secret of an address: neither of a link that was used, nor of one that still opens an account', async () => {
    await world.nobody.send('POST', '/api/password', { email: email('nico') })
    const mail = await until('the link', async () => {
      const mails = await world.db
        .select()
        .from(t.mails)
        .where(eq(t.mails.to, email('nico')))
      return mails.find(m => m.text.includes('/password/'))
    })
    const secret = /\/password\/(\S+)/.exec(mail.text)![1]!
    const liv = await world.as('liv')
    const path = `/api/password/${secret}`
    expect((await liv.send('POST', path, { password: 'short' })).status).toBe(422)
    expect((await liv.send('POST', path, { password: 'nine ropes of hemp' })).status).toBe(200)
    const entries = await log()
    expect(entries.map(e => e.about)).toContain('POST /api/password/:secret')
    expect(JSON.stringify(entries)).not.toContain(secret)
  })

  it('goes on page by page, takes search words as they are, and forgets what is older than a year', async () => {
    const entry = { act: 'signIn', done: true, about: 'a%b_c', client: '192.0.2.7' } as const
    await world.db.insert(t.accessLog).values(Array.from({ length: 150 }, () => entry))
    const first = (await owner.json<AccessLog>('GET', '/api/access-log?find=192.0.2.7')).body
    expect([first.entries.length, first.more]).toEqual([100, true])
    const rest = (
      await owner.json<AccessLog>('GET', `/api/access-log?find=192.0.2.7&before=${first.entries.at(-1)!.id}`)
    ).body
    expect([rest.entries.length, rest.more]).toEqual([50, false])
    expect(await log('?find=a%25b_c')).toHaveLength(100)
    expect(await log('?find=a_b%25c')).toHaveLength(0)
    const old = new Date(Date.now() - 401 * 86_400_000)
    await world.db.update(t.accessLog).set({ at: old }).where(eq(t.accessLog.client, '192.0.2.7'))
    expect(await clearAccessLog(world.db, new Date())).toBe(150)
    expect(await log('?find=192.0.2.7')).toHaveLength(0)
  })

  it('no longer holds the address of somebody who was erased', async () => {
    const former = await world.enrolment('solongo')
    await world.as('solongo')
    const about = and(eq(t.accessLog.about, email('solongo')), eq(t.accessLog.act, 'signIn'))
    expect(await world.db.$count(t.accessLog, about)).toBeGreaterThan(0)
    const [person] = await world.db
      .select()
      .from(t.persons)
      .where(eq(t.persons.email, email('solongo')))
    const erased = await owner.send('POST', `/api/seminars/${world.seminar.id}/people/${former.id}/erase`, {
      name: person!.name,
    })
    expect(erased.status).toBe(200)
    expect(await world.db.$count(t.accessLog, about)).toBe(0)
  })
})
