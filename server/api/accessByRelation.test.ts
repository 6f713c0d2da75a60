import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { nameOf } from '#server/testing/access/answersByTable'
import { CONTRIBUTING_TABLE, TEACHING_TABLE } from '#server/testing/access/tables'
import * as t from '#server/database/schema'
import { doc, testWorld, type World } from '#server/testing/world'

/** What somebody wrote, and who may not know of it, by what they are to each other. */
interface Hidden {
  readonly relation: string
  readonly reader: string
  readonly find: (world: World) => Promise<string>
}

async function written(
  world: World,
  who: string,
  where: Partial<{ activityId: string; state: 'shown' | 'draft' | 'withdrawn'; type: string }>,
): Promise<string> {
  const { id: authorId } = await world.enrolment(who)
  const rows = await world.db
    .select()
    .from(t.contributions)
    .where(
      and(
        eq(t.contributions.authorId, authorId),
        ...(where.activityId ? [eq(t.contributions.activityId, where.activityId)] : []),
        eq(t.contributions.state, where.state ?? 'shown'),
      ),
    )
  const row = rows.find(r => !where.type || r.type === where.type)
  if (!row) throw new Error(`${who} has written nothing such`)
  return row.id
}
const titled = async (world: World, title: string) =>
  (await world.db.select().from(t.activities).where(eq(t.activities.title, title)))[0]!.id

const HIDDEN: readonly Hidden[] = [
  {
    relation: 'a post of a class in which one has to write first, and has not',
    reader: 'paz',
    find: world => written(world, 'rasmus', { activityId: world.dredge.id }),
  },
  {
    relation: 'a draft of a classmate',
    reader: 'liv',
    find: async world => {
      const paz = await world.as('nico')
      await paz.json('PUT', `/api/activities/${world.dredge.id}/draft`, {
        parentId: null,
        doc: doc('Not for anybody yet.'),
        baseVersion: null,
      })
      return written(world, 'nico', { activityId: world.dredge.id, state: 'draft' })
    },
  },
  {
    relation: 'a journal entry of a classmate, who has it with staff alone',
    reader: 'liv',
    find: async world => written(world, 'rasmus', { activityId: await titled(world, 'Harbour notebook') }),
  },
  {
    relation: 'an exit note of a classmate',
    reader: 'nico',
    find: async world => written(world, 'liv', { activityId: await titled(world, 'The stair at noon') }),
  },
  {
    relation: 'what another group has written on a page of its wiki',
    reader: 'liv',
    find: async world => {
      const page = await world.page(world.city.id, 'Port Amara', 'The two moles')
      const groups = await world.db
        .select({ id: t.enrolments.id, groupId: t.groupMembers.groupId })
        .from(t.enrolments)
        .innerJoin(t.groupMembers, eq(t.groupMembers.enrolmentId, t.enrolments.id))
      const liv = await world.enrolment('liv')
      if (groups.some(g => g.id === liv.id && g.groupId === page.groupId))
        throw new Error('Liv is in that group')
      const [version] = await world.db.select().from(t.pageVersions).where(eq(t.pageVersions.pageId, page.id))
      return version!.id
    },
  },
  {
    relation: 'a review of somebody else’s work',
    reader: 'liv',
    find: async world => {
      const [row] = await world.db
        .select({ id: t.contributions.id })
        .from(t.contributions)
        .innerJoin(t.allocations, eq(t.allocations.reviewId, t.contributions.id))
        .where(
          and(
            eq(t.allocations.activityId, world.reports.id),
            eq(t.allocations.reviewerId, (await world.enrolment('petra')).id),
          ),
        )
      return row!.id
    },
  },
  {
    relation: 'a post of another seminar',
    reader: 'outsider',
    find: world => written(world, 'liv', { activityId: world.dredge.id }),
  },
  {
    relation: 'a post of a seminar that one was withdrawn from, one’s own too',
    reader: 'besnik',
    find: async world => {
      const id = await written(world, 'besnik', {})
      await world.db
        .update(t.enrolments)
        .set({ state: 'withdrawn' })
        .where(eq(t.enrolments.id, (await world.enrolment('besnik')).id))
      return id
    },
  },
]

describe('what one may not know of', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
  })
  afterAll(() => world.close())

  const rows = [...CONTRIBUTING_TABLE, ...TEACHING_TABLE].filter(row =>
    row.endpoint.path.includes(':contributionId'),
  )

  it('is asked for at every endpoint about one contribution', () => {
    expect(rows.length).toBeGreaterThan(10)
  })

  it.each(HIDDEN)('is not there at any of them: $relation', async ({ reader, find }) => {
    const id = await find(world)
    const client = await world.as(reader)
    const before = await world.db.select().from(t.contributions).where(eq(t.contributions.id, id))
    const wrong: string[] = []
    for (const row of rows) {
      const body = row.body?.(world, 'liv')
      const [about, unknown] = await Promise.all(
        [id, v7()].map(async contributionId => {
          const path = row.endpoint.path
            .replace(':contributionId', contributionId)
            .replaceAll(/:\w+/g, () => v7())
          const answer = await client.send(row.endpoint.method, path, body)
          return `${answer.status} ${await answer.text()}`
        }),
      )
      // what is not to be known of is answered like what is not there, to the last letter
      if (about !== unknown) wrong.push(`${nameOf(row.endpoint)}: ${about!.slice(0, 120)}`)
    }
    expect(wrong).toEqual([])
    expect(await world.db.select().from(t.contributions).where(eq(t.contributions.id, id))).toEqual(before)
  })
})
