import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { READING_ROUTES } from '#server/testing/access/reading'
import { unlikeDocument } from '#server/testing/access/openApiAnswers'
import { WIKI_ROUTES } from '#server/testing/access/wiki'
import { REVIEWING_ROUTES } from '#server/testing/access/reviewing'
import { SEMINAR_ROUTES } from '#server/testing/access/seminar'
import { CONTRIBUTING_ROUTES } from '#server/testing/access/contributing'
import { MARKING_ROUTES } from '#server/testing/access/marking'
import { CONTRIBUTIONS_ROUTES } from '#server/testing/access/contributions'
import { PEOPLE_ROUTES } from '#server/testing/access/people'
import { PLANNING_ROUTES } from '#server/testing/access/planning'
import { dredge, key, ROLES, seminar, type Role } from '#server/testing/access/roles'
import type { Client } from '#server/testing/server'
import { ENDPOINTS } from '#shared/endpoints'
import type { Endpoint } from '#shared/http/endpoint'
import { testWorld, words, type World } from '#server/testing/world'

// in this order: later rows meet what earlier ones have changed
const TABLE = [
  ...READING_ROUTES,
  ...WIKI_ROUTES,
  ...REVIEWING_ROUTES,
  ...SEMINAR_ROUTES,
  ...CONTRIBUTING_ROUTES,
  ...MARKING_ROUTES,
  ...CONTRIBUTIONS_ROUTES,
  ...PEOPLE_ROUTES,
  ...PLANNING_ROUTES,
]

const nameOf = ({ method, path }: Endpoint) => `${method} ${path}`
const patternOf = ({ path }: Endpoint) => new RegExp(`^${path.replace(/:\w+/g, '[^/]+')}$`)

describe('every route against every role', () => {
  let world: World
  const clients = new Map<Role, Client>()
  beforeAll(async () => {
    world = await testWorld()
    for (const role of ROLES) clients.set(role, role === 'nobody' ? world.nobody : await world.as(role))
  })
  afterAll(() => world.close())

  it('has every endpoint of the book in the table', () => {
    const book = Object.values(ENDPOINTS).flatMap(area => Object.values(area))
    expect(TABLE.map(r => nameOf(r.endpoint)).sort()).toEqual(book.map(nameOf).sort())
  })

  it('answers each as the table says', async () => {
    const wrong: string[] = []
    for (const row of TABLE) {
      const { method } = row.endpoint
      const path = await row.path(world)
      expect(path.split('?')[0]).toMatch(patternOf(row.endpoint))
      for (const [i, role] of ROLES.entries()) {
        const answer = await clients.get(role)!.send(method, path, row.body?.(world, role))
        if (row.stream && answer.ok) await answer.body!.cancel() // it would go on telling
        const text = row.stream && answer.ok ? '' : await answer.text()
        if (answer.status !== row.expected[i])
          wrong.push(
            `${nameOf(row.endpoint)} as ${role}: ${answer.status} instead of ${row.expected[i]}: ${text.slice(0, 160)}`,
          )
        if (answer.ok && /^application\/json/.test(answer.headers.get('content-type') ?? '')) {
          const unlike = unlikeDocument(row.endpoint, JSON.parse(text))
          if (unlike) wrong.push(`${nameOf(row.endpoint)} as ${role}: ${unlike}`)
        }
        if (answer.status >= 400) {
          const problem = JSON.parse(text)
          if (
            !/problem\+json/.test(answer.headers.get('content-type') ?? '') ||
            !/[.?]$/.test(problem.detail)
          )
            wrong.push(`${nameOf(row.endpoint)} as ${role}: no sentence in ${text.slice(0, 160)}`)
        }
      }
    }
    expect(wrong).toEqual([])
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

  it('keeps cookies from scripts, and marks them secure behind TLS', async () => {
    const plain = await world.nobody.send('POST', '/api/session', {
      email: 'paz@northmere.example',
      password: 'harbour',
    })
    expect(plain.headers.get('set-cookie')).toMatch(/HttpOnly/)
    expect(plain.headers.get('set-cookie')).toMatch(/SameSite=Lax/)
    const host = new URL(world.address).host
    const tls = await world.nobody.send(
      'POST',
      '/api/session',
      { email: 'paz@northmere.example', password: 'harbour' },
      { 'x-forwarded-proto': 'https', origin: `https://${host}` },
    )
    expect(tls.headers.get('set-cookie')).toMatch(/Secure/)
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
