import { and, eq, inArray, ne, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { keepDue } from '#server/services/standing/keepStandings'
import { nameOf } from '#server/testing/access/answersByTable'
import { ROLES, type Role } from '#server/testing/access/roles'
import { CONTRIBUTING_TABLE, TEACHING_TABLE } from '#server/testing/access/tables'
import { enlarge } from '#server/testing/enlarge'
import { holdAll, isStudentOf } from '#server/testing/holdAll'
import { queriesOf, TEST_NOW, testServer, type Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { Found as FoundView } from '#shared/planning/find'

const TIMES = 13
const ASKING = ['ines', 'liv'] as const
/** Guesses of a joining code are counted, whoever reads. */
const COUNTED = 'GET /api/join/:code'

const READS = [...CONTRIBUTING_TABLE, ...TEACHING_TABLE].filter(
  row => row.endpoint.method === 'GET' && row.endpoint.answer && !row.endpoint.progress,
)

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

  /** How many statements one answer takes. */
  async function asked(world: World, role: Role, row: (typeof READS)[number]): Promise<number> {
    const client = clients.get(world)!.get(role)!
    const answer = await client.send('GET', await row.path(world))
    await answer.arrayBuffer()
    return queriesOf(answer)
  }

  it(`are as many in a seminar of ${TIMES} times as many students with as much work each`, async () => {
    const students = (world: World) => world.db.$count(t.enrolments, isStudentOf(world.seminar.id))
    expect(await students(large)).toBe(TIMES * (await students(small)))
    expect(READS.length).toBeGreaterThan(60)
    const more: string[] = []
    for (const row of READS)
      for (const role of ASKING) {
        if (row.expected[ROLES.indexOf(role)] !== 200) continue
        const ask = () => Promise.all([small, large].map(world => asked(world, role, row)))
        let [few, many] = await ask()
        // now and then an answer takes one more, whatever its size: when a session was last seen is noted once in a while
        for (let again = 0; again < 2 && !(many! <= few!); again++) [few, many] = await ask()
        if (!(many! <= few!)) more.push(`${nameOf(row.endpoint)} as ${role}: ${few}, then ${many}`)
      }
    expect(more).toEqual([])
  })

  it('write nothing when something is read, whatever has changed without a look', async () => {
    const { dredge, teammates } = small
    await small.db
      .update(t.activities)
      .set({ settings: { ...dredge.settings, namesHidden: true } })
      .where(eq(t.activities.id, dredge.id))
    const liv = await small.enrolment('liv')
    await small.db
      .delete(t.allocations)
      .where(and(eq(t.allocations.activityId, teammates.id), ne(t.allocations.subjectId, liv.id)))
    const reader = await testServer(small.databaseUrl, { PGOPTIONS: '-c default_transaction_read_only=on' })
    try {
      const failed: string[] = []
      for (const row of READS)
        for (const role of ASKING) {
          if (row.expected[ROLES.indexOf(role)] !== 200 || nameOf(row.endpoint) === COUNTED) continue
          const there = clients.get(small)!.get(role)!.at(reader.address)
          const answer = await there.send('GET', await row.path(small))
          const text = await answer.text()
          if (answer.status !== 200) failed.push(`${nameOf(row.endpoint)} as ${role}: ${text.slice(0, 80)}`)
        }
      expect(failed).toEqual([])
    } finally {
      await reader.stop()
    }
  })

  it('are at most 60 when 300 marks are returned at once, and hardly more than for one', async () => {
    const ids = await holdAll(large)
    expect(ids.length).toBeGreaterThanOrEqual(300)
    const giveBack = async (enrolmentIds: readonly string[]) => {
      const path = `/api/activities/${large.breakwater.id}/return`
      const answer = await clients.get(large)!.get('ines')!.send('POST', path, { key: v7(), enrolmentIds })
      expect(await answer.json()).toEqual({ returned: enrolmentIds.length })
      return queriesOf(answer)
    }
    const one = await giveBack(ids.slice(0, 1))
    const all = await giveBack(ids.slice(1))
    expect(all).toBeLessThanOrEqual(60)
    expect(all).toBeLessThanOrEqual(one + 1)
    const standing = await large.db
      .selectDistinct({ standing: t.standings.standing })
      .from(t.standings)
      .where(and(eq(t.standings.activityId, large.breakwater.id), inArray(t.standings.enrolmentId, ids)))
    expect(standing).toEqual([{ standing: 'returned' }])
  })

  it('and when points of a whole class are taken in from a file', async () => {
    const addresses = await large.db
      .select({ email: t.persons.email })
      .from(t.enrolments)
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
      .where(isStudentOf(large.seminar.id))
    const take = async (lines: readonly string[]) => {
      const text = ['mail,points', ...lines].join('\n')
      const answer = await clients
        .get(large)!
        .get('ines')!
        .send('POST', `/api/seminars/${large.seminar.id}/marks`, {
          ...{ key: v7(), activityId: large.breakwater.id, name: 'marks.csv', reason: 'From the exam.' },
          base64: Buffer.from(text).toString('base64'),
        })
      expect(await answer.json()).toEqual({ changed: lines.length })
      return queriesOf(answer)
    }
    const all = addresses.map(({ email }, i) => `${email},${(i % 7) + 1}`)
    const one = await take(all.slice(0, 1))
    expect(await take(all.slice(1))).toBeLessThanOrEqual(one + 1)
  })

  it('and when words are found in many activities', async () => {
    const shown = await small.db
      .selectDistinctOn([t.contributions.activityId], {
        id: t.contributions.id,
        activityId: t.contributions.activityId,
      })
      .from(t.contributions)
      .where(and(eq(t.contributions.state, 'shown'), ne(t.contributions.type, 'pageVersion')))
      .orderBy(t.contributions.activityId, t.contributions.seq)
    const pages = await small.db
      .select({ id: t.wikiPages.currentId, activityId: t.wikiPages.activityId })
      .from(t.wikiPages)
      .where(eq(t.wikiPages.activityId, small.city.id))
      .limit(1)
    const write = (word: string, ids: ReadonlyArray<string | null>) =>
      small.db
        .update(t.contributions)
        .set({ text: sql`${t.contributions.text} || ${` ${word}`}` })
        .where(
          inArray(
            t.contributions.id,
            ids.flatMap(id => id ?? []),
          ),
        )
    const ofFew = shown.filter(s => [small.breakwater.id, small.pilot.id].includes(s.activityId))
    await write(
      'gannet',
      [...ofFew, ...pages].map(s => s.id),
    )
    await write(
      'puffin',
      [...shown, ...pages].map(s => s.id),
    )
    const found = async (word: string) => {
      const path = `/api/seminars/${small.seminar.id}/find?q=${word}`
      const answer = await clients.get(small)!.get('ines')!.send('GET', path)
      const { contributions } = (await answer.json()) as FoundView
      return {
        activities: new Set(contributions.map(c => c.activityId)).size,
        queries: queriesOf(answer),
      }
    }
    const few = await found('gannet')
    const many = await found('puffin')
    expect(few.activities).toBeLessThanOrEqual(3)
    expect(many.activities).toBeGreaterThanOrEqual(6)
    // more only for who talks with whom, and under which names, where a few of them ask for that
    expect(many.queries).toBeLessThanOrEqual(few.queries + 5)
  })
})
