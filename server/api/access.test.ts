import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { nameOf } from '#server/testing/access/answersByTable'
import { dredge, key, seminar } from '#server/testing/access/roles'
import { CONTRIBUTING_TABLE, TEACHING_TABLE } from '#server/testing/access/tables'
import { ENDPOINTS } from '#shared/endpoints'
import { testWorld, words, type World } from '#server/testing/world'

describe('who may do what', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())

  it('has every endpoint of the book in the table', () => {
    const book = Object.values(ENDPOINTS).flatMap(area => Object.values(area))
    const table = [...CONTRIBUTING_TABLE, ...TEACHING_TABLE]
    expect(table.map(r => nameOf(r.endpoint)).sort()).toEqual(book.map(nameOf).sort())
  })

  it('does not tell an address that is not there from one that is not yours', async () => {
    const liv = await world.as('liv')
    const outsider = await world.as('outsider')
    const texts = await Promise.all(
      [
        outsider.send('GET', `/api/activities/${world.dredge.id}`),
        outsider.send('GET', `/api/activities/${key()}`),
        liv.send('GET', `/api/activities/${world.essays.id}`),
        liv.send('GET', `/api/activities/${world.pilot.id}`),
      ].map(async a => (await a).text()),
    )
    expect(new Set(texts).size).toBe(1)
  })

  it('refuses writes from other sites, and writes that do not say where they come from', async () => {
    const liv = await world.as('liv')
    for (const origin of ['https://elsewhere.example', 'null', '']) {
      const answer = await liv.send('PUT', dredge('/visit')(world), { seq: 1 }, { origin })
      expect(answer.status).toBe(403)
    }
  })

  it('signs out on the server: the old cookie is worth nothing', async () => {
    const liv = await world.as('liv')
    expect((await liv.send('GET', seminar()(world))).status).toBe(200)
    await liv.send('DELETE', '/api/session')
    expect((await liv.send('GET', seminar()(world))).status).toBe(401)
  })

  it('keeps cookies from scripts', async () => {
    const plain = await world.nobody.send('POST', '/api/session', {
      email: 'paz@northmere.example',
      password: 'harbour',
    })
    expect(plain.headers.get('set-cookie')).toMatch(/HttpOnly/)
    expect(plain.headers.get('set-cookie')).toMatch(/SameSite=Lax/)
  })

  it('slows guessing of a password down', async () => {
    const statuses: number[] = []
    for (let i = 0; i < 12; i++)
      statuses.push(
        (
          await world.nobody.send('POST', '/api/session', {
            email: 'nico@northmere.example',
            password: words(1),
          })
        ).status,
      )
    expect(statuses.slice(0, 10)).toEqual(Array(10).fill(401))
    expect(statuses.slice(10)).toEqual([429, 429])
  })
})
