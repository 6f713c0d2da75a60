import { and, eq, inArray } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { keepDue } from '#server/services/standing/keepStandings'
import { nameOf } from '#server/testing/access/answersByTable'
import { ROLES, type Role } from '#server/testing/access/roles'
import { CONTRIBUTING_TABLE, TEACHING_TABLE } from '#server/testing/access/tables'
import { enlarge } from '#server/testing/enlarge'
import { TEST_NOW, testServer, type Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'

const TIMES = 13
const ASKING = ['ines', 'liv'] as const
/** Guesses of a joining code are counted, whoever reads. */
const COUNTED = 'GET /api/join/:code'

const READS = [...CONTRIBUTING_TABLE, ...TEACHING_TABLE].filter(
  row => row.endpoint.method === 'GET' && row.endpoint.answer && !row.endpoint.progress,
)

const isStudentOf = (seminarId: string) =>
  and(
    eq(t.enrolments.seminarId, seminarId),
    eq(t.enrolments.state, 'active'),
    eq(t.enrolments.role, 'student'),
  )

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
    const students = (world: World) => world.db.$count(t.enrolments, isStudentOf(world.seminar.id))
    expect(await students(large)).toBe(TIMES * (await students(small)))
    expect(READS.length).toBeGreaterThan(60)
    const more: string[] = []
    for (const row of READS)
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
        if (!(many! <= few!)) more.push(`${nameOf(row.endpoint)} as ${role}: ${few}, then ${many}`)
      }
    expect(more).toEqual([])
  })

  it('write nothing when something is read', async () => {
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
    expect(all).toBe(one)
    const standing = await large.db
      .selectDistinct({ standing: t.standings.standing })
      .from(t.standings)
      .where(and(eq(t.standings.activityId, large.breakwater.id), inArray(t.standings.enrolmentId, ids)))
    expect(standing).toEqual([{ standing: 'returned' }])
  })
})

/** Holds a whole mark for everybody in the talk about the breakwater. */
async function holdAll({ db, seminar, breakwater }: World): Promise<string[]> {
  const students = await db.select({ id: t.enrolments.id }).from(t.enrolments).where(isStudentOf(seminar.id))
  const [marker] = await db.select().from(t.enrolments).where(eq(t.enrolments.role, 'instructor'))
  const given = {
    ...{ rubricVersionId: breakwater.rubricVersionId, state: 'held' as const, heldAt: new Date(TEST_NOW) },
    ...{ letter: { type: 'doc', content: [] }, letterText: '', savedAt: new Date(TEST_NOW) },
  }
  const marks = await db
    .insert(t.marks)
    .values(
      students.map(s => ({
        ...{ seminarId: seminar.id, activityId: breakwater.id, enrolmentId: s.id, markedBy: marker!.id },
        ...given,
      })),
    )
    .onConflictDoUpdate({ target: [t.marks.activityId, t.marks.enrolmentId], set: given })
    .returning({ id: t.marks.id })
  const criteria = await db
    .select()
    .from(t.rubricCriteria)
    .where(eq(t.rubricCriteria.rubricVersionId, breakwater.rubricVersionId!))
  const levels = await db
    .select()
    .from(t.rubricLevels)
    .where(
      inArray(
        t.rubricLevels.criterionId,
        criteria.map(c => c.id),
      ),
    )
  await db.delete(t.criterionMarks).where(
    inArray(
      t.criterionMarks.markId,
      marks.map(m => m.id),
    ),
  )
  const top = criteria.map(c => ({
    criterionId: c.id,
    level: levels.find(l => l.criterionId === c.id && l.points === c.max)!,
  }))
  const steps = marks.flatMap(m =>
    top.map(({ criterionId, level }) => ({
      ...{ seminarId: seminar.id, markId: m.id, criterionId, levelId: level.id, points: level.points },
    })),
  )
  for (let i = 0; i < steps.length; i += 500)
    await db.insert(t.criterionMarks).values(steps.slice(i, i + 500))
  return students.map(s => s.id)
}
