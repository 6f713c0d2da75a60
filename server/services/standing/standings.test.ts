import { isDeepStrictEqual } from 'node:util'
import { and, eq, isNotNull, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { KINDS } from '#core/kinds'
import { seededRandom } from '#core/chance/seededRandom'
import { openDatabase, rowsOf, type Database, type Db } from '#server/database/client'
import * as t from '#server/database/schema'
import { loadPlans } from '#server/services/planning/activityPlan'
import { actByChance, hold, NOW, write } from '#server/testing/actByChance'
import { testDatabase } from '#server/testing/database'
import { until } from '#server/testing/until'
import { judgeWork } from './judgeWork'
import { startServices } from '#server/services/startServices'
import { keepDue, keepOwnChanges } from './keepStandings'
import { readChecked } from './readStandings'
import { loadRecords } from './records'

const DAY = 86_400_000
const SEQUENCES = 200
const ACTS = 5
/** When it is read, from when it was judged, in milliseconds. */
const AWAY = [0, 0, 0, 1, 3_600_000, DAY, 3 * DAY, -DAY, 20 * DAY]

startServices()
let database: Awaited<ReturnType<typeof testDatabase>>
let db: Database
/** The same, as a server uses it: where students stand is judged at the end of each transaction. */
let judging: ReturnType<typeof openDatabase>

beforeAll(async () => {
  database = await testDatabase()
  ;({ db } = database)
  judging = openDatabase(database.url, 3, undefined, tx => keepOwnChanges(tx, NOW))
  await keepDue(db, NOW)
})
afterAll(async () => {
  await judging.close()
  await database.drop()
})

const everyone = async (tx: Db) => ({
  plans: await loadPlans(tx, await tx.select().from(t.activities).where(eq(t.activities.isTemplate, false))),
  students: await tx
    .select({
      enrolmentId: t.enrolments.id,
      seminarId: t.enrolments.seminarId,
      sectionId: t.enrolments.sectionId,
      joinedAt: t.enrolments.joinedAt,
    })
    .from(t.enrolments)
    .where(eq(t.enrolments.role, 'student')),
})

/** Where everybody stands, read from what is kept and judged from what was written. */
async function bothWays(tx: Db, now: Date) {
  const { plans, students } = await everyone(tx)
  const kept = await readChecked(tx, plans, students, now)
  const records = await loadRecords(
    tx,
    plans.map(p => p.activity.id),
    students,
  )
  const pairs = plans.flatMap(plan => students.map(s => ({ plan, id: s.enrolmentId })))
  return {
    kept: pairs.map(({ plan, id }) => {
      const { standing, ownStanding, hasLetter, shown, drafts, checks } = kept.get(plan.activity.id)!.get(id)!
      return { of: `${plan.activity.kind} ${id}`, standing, ownStanding, hasLetter, shown, drafts, checks }
    }),
    judged: pairs.map(({ plan, id }) => ({
      of: `${plan.activity.kind} ${id}`,
      ...judgeWork(plan, records.get(plan.activity.id)!.get(id)!, now),
    })),
  }
}

const keptRows = (tx: Db, now: Date) =>
  tx.$count(
    t.standings,
    sql`(valid_from is null or valid_from <= ${now.toISOString()}::timestamptz)
      and (valid_until is null or valid_until > ${now.toISOString()}::timestamptz)`,
  )

describe('where students stand, kept', () => {
  it('is kept of every student in every activity of the demo, as it is judged', async () => {
    const { plans, students } = await everyone(db)
    expect(await keptRows(db, NOW)).toBe(plans.length * students.length)
    expect(await db.$count(t.standingChanges)).toBe(0)
    const { kept, judged } = await bothWays(db, NOW)
    expect(kept).toEqual(judged)
    expect(new Set(plans.map(p => p.activity.kind))).toEqual(new Set(Object.keys(KINDS)))
  })

  it.each(Array.from({ length: 10 }, (_, i) => i))(
    'is what is judged after any sequence of acts (%i)',
    { timeout: 600_000 },
    async part => {
      let compared = 0
      for (let i = 0; i < SEQUENCES / 10; i++) {
        const seed = part * 1000 + i
        const acts: string[] = []
        await rolledBack(async tx => {
          const random = seededRandom(seed)
          for (let n = 0; n < ACTS; n++) {
            acts.push(await actByChance(tx, random))
            await keepOwnChanges(tx, NOW)
          }
          const left = await tx.$count(t.standingChanges, isNotNull(t.standingChanges.enrolmentId))
          expect(left, `seed ${seed}: ${acts.join(', ')}`).toBe(0)
          if (random() < 0.5) await keepDue(tx, NOW)
          const now = new Date(NOW.getTime() + AWAY[Math.floor(random() * AWAY.length)]!)
          const { kept, judged } = await bothWays(tx, now)
          // said in full only where they differ: to compare some hundred checks in words takes longer than to judge them
          if (!isDeepStrictEqual(kept, judged))
            expect(kept, `seed ${seed}: ${acts.join(', ')}`).toEqual(judged)
          compared += kept.length
        })
      }
      expect(compared).toBeGreaterThan((SEQUENCES / 10) * 100)
    },
  )

  it('is kept again of everybody by the job, after whatever was changed, and after time has turned it', async () => {
    await rolledBack(async tx => {
      const random = seededRandom(7)
      for (let n = 0; n < 40; n++) await actByChance(tx, random)
      const later = new Date(NOW.getTime() + 20 * DAY)
      await keepDue(tx, later)
      const { plans, students } = await everyone(tx)
      expect(await keptRows(tx, later)).toBe(plans.length * students.length)
      expect(await tx.$count(t.standingChanges)).toBe(0)
      expect(await keepDue(tx, later)).toBe(0)
    })
  })

  it('is not kept of somebody who is no student any more, nor looked for each minute', async () => {
    await rolledBack(async tx => {
      const { students } = await everyone(tx)
      const { enrolmentId } = students[0]!
      await tx.update(t.enrolments).set({ role: 'assistant' }).where(eq(t.enrolments.id, enrolmentId))
      await keepDue(tx, NOW)
      expect(await tx.$count(t.standings, eq(t.standings.enrolmentId, enrolmentId))).toBe(0)
      expect(await keepDue(tx, new Date(NOW.getTime() + 100 * DAY))).toBeGreaterThan(0)
      expect(await keepDue(tx, new Date(NOW.getTime() + 100 * DAY))).toBe(0)
    })
  })

  it('counts both of two changes that are made at the same time', async () => {
    const { plans, students } = await everyone(db)
    const { activity } = plans.find(p => p.activity.kind === 'exitNote')!
    const student = students[0]!
    const [written, mayEnd] = [signal(), signal()]
    const first = judging.db.transaction(async tx => {
      await write(tx, { activityId: activity.id, authorId: student.enrolmentId, type: 'entry', words: 90 })
      await keepOwnChanges(tx, NOW)
      written.give()
      await mayEnd.given
    })
    await written.given
    const before = await readOne(activity.id, student.enrolmentId)
    const second = judging.db.transaction(tx => hold(tx, activity.id, student.enrolmentId))
    await until('the second waits for the first', async () => {
      const rows = await rowsOf(
        db,
        sql`select 1 from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`,
      )
      return rows.length > 0
    })
    mayEnd.give()
    await Promise.all([first, second])
    const after = await readOne(activity.id, student.enrolmentId)
    expect(after).toMatchObject({ shown: before.shown + 1, standing: 'held' })
    expect(await db.$count(t.standingChanges)).toBe(0)
  })

  it('stops nobody from writing where it cannot be judged, and stays noted', async () => {
    const { plans, students } = await everyone(db)
    const { activity, expectations } = plans.find(p => p.activity.kind === 'blog')!
    const unsound = { ...expectations[0]!.rule, need: 0 }
    await db.insert(t.expectations).values({
      ...{ seminarId: activity.seminarId, activityId: activity.id, rule: unsound, position: 9 },
    })
    const written = await judging.db.transaction(tx =>
      write(tx, {
        activityId: activity.id,
        authorId: students[0]!.enrolmentId,
        type: KINDS.blog.entryType,
        words: 10,
      }),
    )
    expect(await db.$count(t.contributions, eq(t.contributions.id, written))).toBe(1)
    const noted = await db.select().from(t.standingChanges).where(isNotNull(t.standingChanges.enrolmentId))
    expect(noted).toMatchObject([{ activityId: activity.id, enrolmentId: students[0]!.enrolmentId }])
  })
})

async function readOne(activityId: string, enrolmentId: string) {
  const [row] = await db
    .select()
    .from(t.standings)
    .where(and(eq(t.standings.activityId, activityId), eq(t.standings.enrolmentId, enrolmentId)))
  return row!
}

async function rolledBack(act: (tx: Db) => Promise<void>): Promise<void> {
  const done = new Error('rolled back')
  await db
    .transaction(async tx => {
      await act(tx)
      throw done
    })
    .catch((error: unknown) => {
      if (error !== done) throw error
    })
}

function signal() {
  let give = () => {}
  const given = new Promise<void>(resolve => (give = resolve))
  return { given, give }
}
