import { eq } from 'drizzle-orm'
import * as t from '#server/database/schema'
import { testWorld, type World } from '#server/testing/world'
import type { Client } from '#server/testing/server'
import type { Endpoint } from '#shared/http/endpoint'
import { unlikeDocument } from './openApiAnswers'
import { ROLES, type Role, type Row } from './roles'

export const nameOf = ({ method, path }: Endpoint) => `${method} ${path}`
const patternOf = ({ path }: Endpoint) => new RegExp(`^${path.replace(/:\w+/g, '[^/]+')}$`)

/** Asks every endpoint of a table as every role, in a seminar made for it. @returns what is not as the table says, in words */
export async function unlikeTable(table: readonly Row[]): Promise<readonly string[]> {
  const world = await testWorld()
  try {
    const clients = new Map<Role, Client>()
    for (const role of ROLES) clients.set(role, role === 'nobody' ? world.nobody : await world.as(role))
    const gone = await withdrawn(world)
    const wrong: string[] = []
    for (const row of table) {
      wrong.push(...(await unlikeOutsider(world, gone, row)))
      wrong.push(...(await unlikeRow(world, clients, row)))
    }
    return wrong
  } finally {
    await world.close()
  }
}

/** A student who took part, wrote, and was withdrawn: from then on the seminar is not there for them. */
async function withdrawn(world: World): Promise<Client> {
  const { id } = await world.enrolment('besnik')
  const client = await world.as('besnik')
  await world.db.update(t.enrolments).set({ state: 'withdrawn' }).where(eq(t.enrolments.id, id))
  return client
}
async function unlikeOutsider(world: World, gone: Client, row: Row): Promise<string[]> {
  const expected = row.withdrawn ?? row.expected[ROLES.indexOf('outsider')]
  const answer = await gone.send(row.endpoint.method, await row.path(world), row.body?.(world, 'outsider'))
  if (row.stream && answer.ok) await answer.body!.cancel() // it would go on telling
  const text = row.stream && answer.ok ? '' : await answer.text()
  if (answer.status === expected) return []
  return [
    `${nameOf(row.endpoint)} as somebody withdrawn: ${answer.status} instead of ${expected}: ${text.slice(0, 160)}`,
  ]
}

async function unlikeRow(world: World, clients: ReadonlyMap<Role, Client>, row: Row): Promise<string[]> {
  const wrong: string[] = []
  const path = await row.path(world)
  if (!patternOf(row.endpoint).test(path.split('?')[0]!)) return [`${path} is not at ${nameOf(row.endpoint)}`]
  for (const [i, role] of ROLES.entries()) {
    const say = (what: string) => wrong.push(`${nameOf(row.endpoint)} as ${role}: ${what}`)
    const answer = await clients.get(role)!.send(row.endpoint.method, path, row.body?.(world, role))
    if (row.stream && answer.ok) await answer.body!.cancel() // it would go on telling
    const text = row.stream && answer.ok ? '' : await answer.text()
    const type = answer.headers.get('content-type') ?? ''
    if (answer.status !== row.expected[i])
      say(`${answer.status} instead of ${row.expected[i]}: ${text.slice(0, 160)}`)
    if (answer.ok && /^application\/json/.test(type)) {
      const unlike = unlikeDocument(row.endpoint, JSON.parse(text))
      if (unlike) say(unlike)
    }
    if (answer.status >= 400 && (!/problem\+json/.test(type) || !/[.?]$/.test(JSON.parse(text).detail)))
      say(`no sentence in ${text.slice(0, 160)}`)
  }
  return wrong
}
