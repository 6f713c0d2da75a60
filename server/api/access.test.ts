import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { Client } from '#server/testing/server'
import { doc, testWorld, words, type World } from '#server/testing/world'

const ROLES = ['nobody', 'outsider', 'observer', 'paz', 'liv', 'henrik', 'ines'] as const // paz and liv are students
type Role = (typeof ROLES)[number]
type Expected = readonly [nobody: number, outsider: number, observer: number, paz: number, liv: number, henrik: number, ines: number]

interface Row { readonly route: string, readonly path: (w: World) => Promise<string> | string, readonly body?: (w: World, role: Role) => unknown, readonly expected: Expected }

const key = () => v7()
const seminar = (rest = '') => (w: World) => `/api/seminars/${w.seminar.id}${rest}`
const dredge = (rest = '') => (w: World) => `/api/activities/${w.dredge.id}${rest}`
const breakwater = (rest = '') => (w: World) => `/api/activities/${w.breakwater.id}${rest}`
const record = (student: string, rest = '') => async (w: World) => `/api/activities/${w.breakwater.id}/records/${(await w.enrolment(student)).id}${rest}`
const ofRasmus = (rest = '') => async (w: World) => `/api/contributions/${(await w.contribution('rasmus', w.dredge.id)).id}${rest}`

const MEMBERS: Expected = [401, 404, 200, 200, 200, 200, 200]
const STUDENTS: Expected = [401, 404, 404, 200, 200, 404, 404]
const WRITERS: Expected = [401, 404, 403, 200, 200, 200, 200]
const STAFF: Expected = [401, 404, 403, 403, 403, 200, 200]

/** Every route against every role. A student is never told more than that something is not theirs. */
const TABLE: readonly Row[] = [
  { route: 'session/index.get.ts', path: () => '/api/session', expected: [200, 200, 200, 200, 200, 200, 200] },
  { route: 'session/index.post.ts', path: () => '/api/session', body: () => ({ email: 'liv@northmere.example', password: 'wrong' }), expected: [401, 401, 401, 401, 401, 401, 401] },
  { route: 'demo/people.get.ts', path: () => '/api/demo/people', expected: [200, 200, 200, 200, 200, 200, 200] },
  { route: 'demo/session.post.ts', path: () => '/api/demo/session', body: () => ({ personId: key() }), expected: [404, 404, 404, 404, 404, 404, 404] },
  { route: 'seminars/[seminarId]/index.get.ts', path: seminar(), expected: MEMBERS },
  { route: 'seminars/[seminarId]/plan.get.ts', path: seminar('/plan'), expected: MEMBERS },
  { route: 'seminars/[seminarId]/week.get.ts', path: seminar('/week'), expected: STUDENTS },
  { route: 'seminars/[seminarId]/letters.get.ts', path: seminar('/letters'), expected: MEMBERS },
  { route: 'seminars/[seminarId]/marking.get.ts', path: seminar('/marking'), expected: STAFF },
  { route: 'activities/[activityId]/index.get.ts', path: dredge(), expected: MEMBERS },
  { route: 'activities/[activityId]/contributions.get.ts', path: dredge('/contributions'), expected: MEMBERS },
  { route: 'activities/[activityId]/contributions.post.ts', path: dredge('/contributions'), body: () => ({ key: key(), parentId: null, doc: doc('A post of one role.') }), expected: WRITERS },
  { route: 'activities/[activityId]/draft.put.ts', path: dredge('/draft'), body: () => ({ parentId: null, doc: doc('A draft.'), baseVersion: null }), expected: WRITERS },
  { route: 'activities/[activityId]/draft.delete.ts', path: dredge('/draft'), body: () => ({ parentId: null }), expected: WRITERS },
  { route: 'activities/[activityId]/visit.put.ts', path: dredge('/visit'), expected: MEMBERS },
  { route: 'activities/[activityId]/desk.get.ts', path: breakwater('/desk'), expected: STAFF },
  { route: 'activities/[activityId]/letter.get.ts', path: breakwater('/letter'), expected: [401, 404, 404, 404, 200, 404, 404] },
  { route: 'activities/[activityId]/return.post.ts', path: breakwater('/return'), body: () => ({ key: key(), enrolmentIds: [key()] }), expected: [401, 404, 403, 403, 403, 409, 409] },
  { route: 'activities/[activityId]/records/[enrolmentId]/index.get.ts', path: record('liv'), expected: STAFF },
  { route: 'activities/[activityId]/records/[enrolmentId]/mark.put.ts', path: record('idris', '/mark'), body: (_, role) => ({ key: key(), baseVersion: role === 'ines' ? 1 : 0, steps: [], citations: [], letter: doc('Dear Idris,'), markerNote: '', lateWaived: false }), expected: STAFF },
  { route: 'activities/[activityId]/records/[enrolmentId]/hold.post.ts', path: record('kadri', '/hold'), body: () => ({ key: key(), baseVersion: 0 }), expected: [401, 404, 403, 403, 403, 422, 422] },
  { route: 'activities/[activityId]/records/[enrolmentId]/reopen.post.ts', path: record('kadri', '/reopen'), body: () => ({ key: key(), baseVersion: 0 }), expected: [401, 404, 403, 403, 403, 409, 409] },
  { route: 'activities/[activityId]/records/[enrolmentId]/return.post.ts', path: record('kadri', '/return'), body: () => ({ key: key(), baseVersion: 0 }), expected: [401, 404, 403, 403, 403, 422, 422] },
  { route: 'contributions/[contributionId]/index.patch.ts', path: ofRasmus(), body: () => ({ key: key(), doc: doc('Not mine to change.'), baseVersion: 1 }), expected: [401, 404, 403, 403, 403, 403, 403] },
  { route: 'contributions/[contributionId]/nod.put.ts', path: ofRasmus('/nod'), body: () => ({ nodded: true }), expected: WRITERS },
  { route: 'contributions/[contributionId]/withdrawn.put.ts', path: ofRasmus('/withdrawn'), body: () => ({ withdrawn: true }), expected: [401, 404, 403, 403, 403, 200, 200] },
  { route: 'session/index.delete.ts', path: () => '/api/session', expected: [200, 200, 200, 200, 200, 200, 200] },
]

describe('every route against every role', () => {
  let world: World
  const clients = new Map<Role, Client>()
  beforeAll(async () => {
    world = await testWorld()
    for (const role of ROLES) clients.set(role, role === 'nobody' ? world.nobody : await world.as(role))
  })
  afterAll(() => world.close())

  it('has every route of the server in the table', () => {
    const folder = join(import.meta.dirname)
    const files = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter(f => /\.(get|post|put|patch|delete)\.ts$/.test(f))
    expect(files.sort()).toEqual(TABLE.map(r => r.route).sort())
  })

  it('answers each as the table says', async () => {
    const wrong: string[] = []
    for (const row of TABLE) {
      const method = /\.(\w+)\.ts$/.exec(row.route)![1]!.toUpperCase()
      const path = await row.path(world)
      for (const [i, role] of ROLES.entries()) {
        const answer = await clients.get(role)!.send(method, path, row.body?.(world, role))
        const text = await answer.text()
        if (answer.status !== row.expected[i]) wrong.push(`${row.route} as ${role}: ${answer.status} instead of ${row.expected[i]}: ${text.slice(0, 160)}`)
        if (answer.status >= 400) {
          const problem = JSON.parse(text)
          if (!/problem\+json/.test(answer.headers.get('content-type') ?? '') || !/[.?]$/.test(problem.detail)) wrong.push(`${row.route} as ${role}: no sentence in ${text.slice(0, 160)}`)
        }
      }
    }
    expect(wrong).toEqual([])
  })

  it('does not tell an address that is not there from one that is not yours', async () => {
    const liv = await world.as('liv')
    const outsider = await world.as('outsider')
    const texts = await Promise.all([
      outsider.send('GET', `/api/activities/${world.dredge.id}`), outsider.send('GET', `/api/activities/${key()}`), liv.send('GET', `/api/activities/${world.essays.id}`), liv.send('GET', `/api/activities/${world.pilot.id}`),
    ].map(async a => (await a).text()))
    expect(new Set(texts).size).toBe(1)
  })

  it('refuses writes from other sites, and writes that do not say where they come from', async () => {
    const liv = await world.as('liv')
    for (const origin of ['https://elsewhere.example', 'null', '']) {
      const answer = await liv.send('PUT', dredge('/visit')(world), undefined, { origin })
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
    const plain = await world.nobody.send('POST', '/api/session', { email: 'paz@northmere.example', password: 'harbour' })
    expect(plain.headers.get('set-cookie')).toMatch(/HttpOnly/)
    expect(plain.headers.get('set-cookie')).toMatch(/SameSite=Lax/)
    const host = new URL(world.server.address).host
    const tls = await world.nobody.send('POST', '/api/session', { email: 'paz@northmere.example', password: 'harbour' }, { 'x-forwarded-proto': 'https', 'origin': `https://${host}` })
    expect(tls.headers.get('set-cookie')).toMatch(/Secure/)
  })

  it('slows guessing of a password down', async () => {
    const statuses: number[] = []
    for (let i = 0; i < 12; i++) statuses.push((await world.nobody.send('POST', '/api/session', { email: 'nico@northmere.example', password: words(1) })).status)
    expect(statuses.slice(0, 10)).toEqual(Array(10).fill(401))
    expect(statuses.slice(10)).toEqual([429, 429])
  })
})
