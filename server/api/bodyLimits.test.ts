import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { CONTRIBUTING_TABLE, TEACHING_TABLE } from '#server/testing/access/tables'
import { nameOf } from '#server/testing/access/answersByTable'
import { ROLES, type Role, type Row } from '#server/testing/access/roles'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import { LARGEST_BODY, LARGEST_UNASKED } from '#shared/http/limits'

const MB = 1024 * 1024
/** Megabytes a body may cost beside its own size, many times over: what is read, what it is parsed to, and what is not yet collected. */
const ROOM = 260

describe('every body that is read has a limit, and costs no more memory than it is long', () => {
  let world: World
  const clients = new Map<Role, Client>()
  beforeAll(async () => {
    world = await testWorld({ own: true, minutes: false })
    for (const role of ROLES) clients.set(role, role === 'nobody' ? world.nobody : await world.as(role))
  })
  afterAll(() => world.close())

  const memory = () =>
    (Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${world.pid}/status`, 'utf8'))![1]) * 1024) / MB
  /** Runs something and says the most memory the server had meanwhile beyond what it had before; megabytes. */
  async function grown(act: () => Promise<void>): Promise<number> {
    const before = memory()
    let most = before
    const watch = setInterval(() => {
      most = Math.max(most, memory())
    }, 5)
    try {
      await act()
    } finally {
      clearInterval(watch)
    }
    return Math.max(most, memory()) - before
  }
  /**
   * The least of three times, of which it takes no more than it needs: when memory is given back is the collector's to
   * decide, and what is held by mistake is held every time.
   */
  async function leastGrown(act: () => Promise<void>, allowed: number): Promise<number> {
    let least = Infinity
    for (let tries = 0; tries < 3 && least > allowed; tries++) least = Math.min(least, await grown(act))
    return least
  }
  /** JSON of exactly so many bytes, in no contract. */
  const filled = (bytes: number) => JSON.stringify({ filler: 'x'.repeat(bytes - '{"filler":""}'.length) })
  const takesBody = (row: Row) => row.endpoint.method !== 'GET' && row.endpoint.body !== undefined
  const rows = [...CONTRIBUTING_TABLE, ...TEACHING_TABLE].filter(takesBody)
  const limitOf = (row: Row) => row.endpoint.largest ?? LARGEST_BODY

  it('has every kind of limit in it', () => {
    expect(rows.length).toBeGreaterThan(100)
    expect(new Set(rows.map(limitOf)).size).toBeGreaterThan(3)
  })

  it.each([
    ['the usual limit', (row: Row) => row.endpoint.largest === undefined],
    ['a limit of their own', (row: Row) => row.endpoint.largest !== undefined],
  ])('at %s it is read, and one byte above it is refused in words', async (_, isMeant) => {
    const wrong: string[] = []
    for (const row of rows.filter(isMeant)) {
      const path = await row.path(world)
      const limit = limitOf(row)
      const ines = clients.get('ines')!
      const allowed = ROOM + (8 * limit) / MB
      const ask = async () => {
        const at = await ines.send(row.endpoint.method, path, filled(limit))
        if (at.status === 413 || at.status >= 500)
          wrong.push(`${nameOf(row.endpoint)}: ${at.status} at its limit of ${limit}`)
        await at.text()
        // a connection may be cut while what nobody wants is still being sent
        const above = await ines.send(row.endpoint.method, path, filled(limit + 1)).catch(() => null)
        const text = (await above?.text().catch(() => '')) ?? ''
        if (above && above.status !== 413 && at.status === 422)
          wrong.push(`${nameOf(row.endpoint)}: ${above.status} above its limit of ${limit}`)
        if ((above?.status ?? 0) >= 500) wrong.push(`${nameOf(row.endpoint)}: ${text.slice(0, 120)}`)
      }
      const cost = await leastGrown(ask, allowed)
      if (cost > allowed)
        wrong.push(`${nameOf(row.endpoint)}: ${Math.round(cost)} MB more for a body of ${limit} bytes`)
    }
    expect(wrong).toEqual([])
  })

  it('refuses a long body in words that is no JSON, nests without end, or holds what cannot be stored', async () => {
    const row = rows.find(r => (r.endpoint.largest ?? 0) > 10 * LARGEST_BODY)!
    const send = async (body: string) => {
      const answer = await clients.get('ines')!.send(row.endpoint.method, await row.path(world), body)
      return [answer.status, ((await answer.json()) as { code: string }).code]
    }
    const long = 'x'.repeat(2 * LARGEST_BODY)
    expect(await send(`{"filler":"${long}`)).toEqual([400, 'notJson'])
    expect(await send('['.repeat(2 * LARGEST_BODY))).toEqual([400, 'notJson'])
    expect(await send(JSON.stringify({ filler: `${long}\0` }))).toEqual([422, 'characters'])
    expect((await send(JSON.stringify({ filler: long })))[0]).toBe(422)
  })

  it('reads no more of a stranger than signing in takes', async () => {
    const wrong: string[] = []
    const askAll = async () => {
      for (const row of rows) {
        const answer = await world.nobody
          .send(row.endpoint.method, await row.path(world), filled(Math.min(limitOf(row), LARGEST_BODY)))
          .catch(() => null) // cut off while it was still being sent
        if (answer && ![401, 413, 422, 429].includes(answer.status))
          wrong.push(`${nameOf(row.endpoint)}: ${answer.status}`)
        await answer?.text()
      }
    }
    const cost = await leastGrown(askAll, ROOM)
    expect(wrong).toEqual([])
    expect(LARGEST_UNASKED).toBeLessThan(LARGEST_BODY / 10)
    expect(cost).toBeLessThan(ROOM)
  })
})
