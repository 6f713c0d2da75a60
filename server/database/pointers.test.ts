import { eq, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { testDatabase } from '#server/testing/database'
import { rowsOf } from './client'
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

/** Whatever is put together wrongly above: the database takes no row that points into another seminar. */
describe('rows of a seminar', () => {
  let database: Awaited<ReturnType<typeof testDatabase>>
  let here: string
  let elsewhere: string
  let there: { readonly activity: string; readonly student: string }
  beforeAll(async () => {
    database = await testDatabase()
    const { db } = database
    const [like] = await db.select().from(t.seminars)
    here = like!.id
    const { id: _id, ...seminar } = like!
    const [other] = await db
      .insert(t.seminars)
      .values({ ...seminar, code: 'XX 9' })
      .returning()
    elsewhere = other!.id
    const [discussion] = await db.select().from(t.activities).where(eq(t.activities.kind, 'discussion'))
    const { id: _own, groupPlanId: _plan, textId: _text, ...activity } = discussion!
    const [made] = await db
      .insert(t.activities)
      .values({
        ...activity,
        seminarId: elsewhere,
        ...{
          unitId: null,
          categoryId: null,
          rubricVersionId: null,
          gradingScaleId: null,
          spokenFileId: null,
        },
      })
      .returning()
    const [petra] = await db.select().from(t.persons).where(eq(t.persons.email, 'petra@northmere.example'))
    const [student] = await db
      .insert(t.enrolments)
      .values({
        ...{ seminarId: elsewhere, personId: petra!.id, role: 'student' },
        ...{ name: 'Petra Lind', givenName: 'Petra', familyName: 'Lind' },
      })
      .returning()
    there = { activity: made!.id, student: student!.id }
  })
  afterAll(() => database.drop())

  const keys = () =>
    rowsOf<{ table: string; column: string; parent: string }>(
      database.db,
      sql`select c.conrelid::regclass::text as table, a.attname as column, c.confrelid::regclass::text as parent
        from pg_constraint c join pg_attribute a on a.attrelid = c.conrelid and a.attnum = c.conkey[2]
        where c.contype = 'f' and c.conname like '%_in_seminar'`,
    )

  it('are refused where one points into another seminar, whatever the table', async () => {
    const taken: string[] = []
    const unused: string[] = [] // the demo has no such row
    const all = await keys()
    expect(all.length).toBeGreaterThan(40)
    for (const { table, column, parent } of all) {
      const refused = await database.db
        .transaction(async tx => {
          // some row of the table now says that it is of the other seminar, and what it points to is not
          const moved = await tx.execute(sql`
            update ${sql.identifier(table)} r set seminar_id = ${elsewhere}
            where ctid = (select ctid from ${sql.identifier(table)} where ${sql.identifier(column)} is not null limit 1)`)
          await tx.execute(sql`set constraints all immediate`)
          return moved.rowCount === 0 ? 'nothing to move' : null
        })
        .catch(
          (error: Error & { cause?: { constraint?: string } }) => error.cause?.constraint ?? error.message,
        )
      if (refused === 'nothing to move') unused.push(`${table}.${column}`)
      else if (!/_in_(seminar|reach)$/.test(refused ?? ''))
        taken.push(`${table}.${column} → ${parent}: ${refused}`)
    }
    expect(taken).toEqual([])
    expect(unused.length).toBeLessThan(all.length / 4)
  })

  it('nor is anything taken in an activity of a seminar that has not joined it', async () => {
    const visit = { seminarId: here, activityId: there.activity, seenSeq: 1, seenUntil: new Date() }
    const liv = await student('liv')
    await expect(database.db.insert(t.visits).values({ ...visit, enrolmentId: liv })).rejects.toMatchObject({
      cause: expect.objectContaining({ code: '23503', constraint: 'visits_activity_in_reach' }),
    })
    await database.db.insert(t.jointSeminars).values({ seminarId: here, activityId: there.activity })
    await database.db.insert(t.visits).values({ ...visit, enrolmentId: liv })
    const [stored] = await database.db.select().from(t.visits).where(eq(t.visits.activityId, there.activity))
    expect(stored).toMatchObject({ enrolmentId: liv, seenSeq: 1 })
  })

  async function student(name: string): Promise<string> {
    const [row] = await database.db
      .select({ id: t.enrolments.id })
      .from(t.enrolments)
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
      .where(sql`${t.persons.email} = ${`${name}@northmere.example`} and ${t.enrolments.seminarId} = ${here}`)
    return row!.id
  }
})
