import { eq, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { testDatabase } from '#server/testing/database'
import * as t from './schema'

/** What settings point to stands in JSON; the database holds it all the same. */
describe('what an activity’s settings point to', () => {
  let database: Awaited<ReturnType<typeof testDatabase>>
  let elsewhere: string
  beforeAll(async () => {
    database = await testDatabase()
    const [like] = await database.db.select().from(t.seminars)
    const { id: _id, ...seminar } = like!
    const [other] = await database.db
      .insert(t.seminars)
      .values({ ...seminar, code: 'XX 9' })
      .returning()
    elsewhere = other!.id
  })
  afterAll(() => database.drop())

  const activities = () => database.db.select().from(t.activities)
  const set = (id: string, part: Partial<typeof t.activities.$inferInsert>) =>
    database.db.update(t.activities).set(part).where(eq(t.activities.id, id))
  const constraint = (name: string) => ({ cause: expect.objectContaining({ constraint: name }) })

  it('is known as a column, and is there', async () => {
    const all = await activities()
    const reading = all.filter(a => a.settings.reading?.textId)
    const inGroups = all.filter(a => a.audience.kind === 'groups')
    expect([reading.length, inGroups.length].every(n => n > 0)).toBe(true)
    expect(reading.map(a => a.textId)).toEqual(reading.map(a => a.settings.reading!.textId))
    for (const a of inGroups) expect(a.audience).toMatchObject({ groupPlanId: a.groupPlanId })
  })

  it('is of the same seminar, or is refused', async () => {
    const all = await activities()
    const inGroups = all.find(a => a.audience.kind === 'groups')!
    const [like] = await database.db.select().from(t.groupPlans)
    const { id: _id, ...values } = like!
    const [plan] = await database.db
      .insert(t.groupPlans)
      .values({ ...values, seminarId: elsewhere })
      .returning()
    const audience = { kind: 'groups' as const, groupPlanId: plan!.id, groupIds: [] }
    await expect(set(inGroups.id, { audience })).rejects.toMatchObject(
      constraint('activities_group_plan_in_seminar'),
    )
    const { id, settings } = all.find(a => a.textId !== null)!
    const reading = { ...settings.reading!, textId: v7() }
    await expect(set(id, { settings: { ...settings, reading } })).rejects.toMatchObject(
      constraint('activities_text_in_seminar'),
    )
  })

  it('and a thread begins with a contribution that is there', async () => {
    const [some] = await database.db.select().from(t.contributions).limit(1)
    const moved = database.db
      .update(t.contributions)
      .set({ threadId: v7() })
      .where(eq(t.contributions.id, some!.id))
    await expect(moved).rejects.toMatchObject(constraint('contributions_thread'))
    const lost = await database.db.execute(
      sql`select 1 from contributions c where not exists (select 1 from contributions r where r.id = c.thread_id)
        and c.thread_id is not null`,
    )
    expect(lost.rows).toEqual([])
  })
})
