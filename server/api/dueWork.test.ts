import { and, eq, inArray, isNotNull, sql, type SQL } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { USUAL_REVIEW } from '#core/kinds/review/reviewSettings'
import * as t from '#server/database/schema'
import type { Database } from '#server/database/client'
import { notifyOfClosing } from '#server/services/closing/closingSurveys'
import { dealDue } from '#server/kinds/review/deal'
import { showDue } from '#server/services/contributing/writing/postContribution'
import { releaseDue } from '#server/services/marking/peers/moderate'
import { notifyOfReturn, returnDue } from '#server/services/marking/returnMark'
import { sendByRules } from '#server/services/messaging/rules'
import { notifyOfMessages } from '#server/services/messaging/writeTo'
import { keepDue } from '#server/services/standing/keepStandings'
import { publishDue } from '#server/services/composing/publish'
import { write } from '#server/testing/actByChance'
import { TEST_NOW } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { DueFailures, DueTask } from '#shared/people/dueFailures'

const NOW = new Date(TEST_NOW)
const minutes = (n: number) => new Date(NOW.getTime() + n * 60_000)
const PAST = minutes(-60)

/** Work of one sort that is due twice: once where it can be done, once where the database refuses it. */
interface Due {
  readonly task: DueTask
  readonly doDue: (db: Database, now: Date) => Promise<number>
  readonly table: string // whose rows are refused
  readonly column: 'id' | 'activity_id' | 'rule_id'
  readonly each?: number // how many are counted for one that is done, if not one
  readonly prepare: () => Promise<readonly [good: string, poisoned: string]>
  readonly isDone: (id: string) => Promise<boolean>
}

describe('what is done by itself when its time has come', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld({ own: true, minutes: false })
    await world.db.execute(sql`create table poison (id uuid)`)
    await world.db.execute(sql`create function refuse() returns trigger language plpgsql as $$ begin
      if exists (select 1 from poison where id::text = to_jsonb(new) ->> tg_argv[0]) then
        raise exception 'Words of Liv that no list may show';
      end if;
      return new;
    end $$`)
  })
  afterAll(() => world.close())

  const isIn = async (table: 'contributions' | 'activities', id: string, state: string) => {
    const { rows } = await world.db.execute(
      sql`select 1 from ${sql.identifier(table)} where id = ${id} and state = ${state}`,
    )
    return rows.length > 0
  }
  const markOf = async (id: string) => (await world.db.select().from(t.marks).where(eq(t.marks.id, id)))[0]!
  const two = (rows: readonly { readonly id: string }[]) =>
    rows.slice(0, 2).map(r => r.id) as [string, string]
  const changeMarks = async (of: SQL, set: Partial<typeof t.marks.$inferInsert>) => {
    const ids = two(await world.db.select({ id: t.marks.id }).from(t.marks).where(of))
    await world.db.update(t.marks).set(set).where(inArray(t.marks.id, ids))
    return ids
  }

  /** A round of peer review in which three have handed in, and reviewing has begun; or, before that, two have not. */
  async function roundToDeal(isOver = true) {
    const { id: _id, ...like } = world.reports
    const [liv, nico, malin] = await Promise.all(['liv', 'nico', 'malin'].map(who => world.enrolment(who)))
    const review = { ...USUAL_REVIEW, each: 1 }
    const [round] = await world.db
      .insert(t.activities)
      .values({
        ...like,
        ...{ settings: { ...like.settings, review }, position: 900, opensAt: minutes(-9000) },
        audience: { kind: 'people', enrolmentIds: [liv!.id, nico!.id, malin!.id] },
      })
      .returning()
    const { id: activityId, seminarId } = round!
    const ends = isOver ? minutes(-60) : minutes(120)
    await world.db.insert(t.phases).values([
      { seminarId, activityId, name: 'write', startsAt: minutes(-9000), endsAt: ends, position: 0 },
      { seminarId, activityId, name: 'review', startsAt: ends, endsAt: minutes(9000), position: 1 },
    ])
    await world.db.insert(t.expectations).values({
      ...{ seminarId, activityId, position: 0 },
      rule: { kind: 'entries', need: 1, minWords: 1, due: 'write' },
    })
    for (const { id } of isOver ? [liv!, nico!, malin!] : [malin!])
      await write(world.db, { activityId, authorId: id, type: 'entry', words: 9 })
    return activityId
  }
  /** A rule whose time to remind of an activity has come. */
  async function ruleDue(activityId: string) {
    const [rule] = await world.db
      .insert(t.messageRules)
      .values({
        ...{ seminarId: world.seminar.id, activityId, daysBefore: 1, atTime: '08:00', on: true },
        ...{ subject: 'Still to do', text: 'There is something to do.', onSince: minutes(-9000) },
        madeBy: (await world.enrolment('ines')).id,
      })
      .returning()
    return rule!.id
  }

  const DUE: readonly Due[] = [
    {
      task: 'judge',
      doDue: keepDue,
      table: 'standings',
      column: 'activity_id',
      prepare: async () => {
        const ids = [world.dredge.id, world.pilot.id] as const
        await world.db.insert(t.standingChanges).values(ids.map(activityId => ({ activityId })))
        return ids
      },
      isDone: async id =>
        (await world.db.$count(t.standingChanges, eq(t.standingChanges.activityId, id))) === 0,
    },
    {
      task: 'publish',
      doDue: publishDue,
      table: 'activities',
      column: 'id',
      prepare: async () => {
        await world.db
          .update(t.activities)
          .set({ state: 'scheduled', opensAt: PAST })
          .where(inArray(t.activities.id, [world.pilot.id, world.essays.id]))
        return [world.essays.id, world.pilot.id]
      },
      isDone: id => isIn('activities', id, 'published'),
    },
    {
      task: 'show',
      doDue: showDue,
      table: 'contributions',
      column: 'id',
      prepare: async () => {
        const [liv, nico] = [
          await world.contribution('liv', world.breakwater.id),
          await world.contribution('nico', world.breakwater.id),
        ]
        await world.db
          .update(t.contributions)
          .set({ state: 'scheduled', showAt: PAST })
          .where(inArray(t.contributions.id, [liv.id, nico.id]))
        return [liv.id, nico.id]
      },
      isDone: id => isIn('contributions', id, 'shown'),
    },
    {
      task: 'return',
      doDue: returnDue,
      table: 'marks',
      column: 'id',
      prepare: async () =>
        changeMarks(and(eq(t.marks.activityId, world.breakwater.id), eq(t.marks.state, 'held'))!, {
          returnAt: PAST,
          returnBy: (await world.enrolment('ines')).id,
        }),
      isDone: async id => (await markOf(id)).state === 'returned',
    },
    {
      task: 'tellOfReturn',
      doDue: notifyOfReturn,
      table: 'marks',
      column: 'id',
      prepare: () =>
        changeMarks(and(eq(t.marks.state, 'returned'), isNotNull(t.marks.toldAt))!, {
          toldAt: null,
          returnedAt: PAST,
        }),
      isDone: async id => (await markOf(id)).toldAt !== null,
    },
    {
      task: 'release',
      doDue: releaseDue,
      table: 'review_rounds',
      column: 'activity_id',
      prepare: async () => {
        const ids = [world.reports.id, world.teammates.id] as const
        for (const { id, settings } of [world.reports, world.teammates]) {
          const review = { ...settings.review!, release: 'at' as const, releaseAt: PAST.toISOString() }
          await world.db
            .update(t.activities)
            .set({ settings: { ...settings, review } })
            .where(eq(t.activities.id, id))
        }
        await world.db
          .update(t.peerReviews)
          .set({ releasedAt: null })
          .where(inArray(t.peerReviews.activityId, [...ids]))
        return ids
      },
      isDone: async id => {
        const [row] = await world.db.select().from(t.peerReviews).where(eq(t.peerReviews.activityId, id))
        return (row?.releasedAt ?? null) !== null
      },
    },
    {
      task: 'deal',
      doDue: dealDue,
      table: 'allocations',
      column: 'activity_id',
      prepare: async () => [await roundToDeal(), await roundToDeal()],
      isDone: async id => (await world.db.$count(t.allocations, eq(t.allocations.activityId, id))) > 0,
    },
    {
      task: 'tellOfClosing',
      doDue: notifyOfClosing,
      table: 'closing_rounds',
      column: 'activity_id',
      prepare: async () => {
        const ids = [world.walls.id, world.terms.id]
        await world.db.insert(t.closingSurveys).values(
          ids.map(activityId => ({
            activityId,
            seminarId: world.seminar.id,
            named: true,
            questions: [{ id: activityId, kind: 'open' as const, text: 'What would you keep?' }],
            opensAt: PAST,
            closesAt: minutes(10_000),
          })),
        )
        return [ids[0]!, ids[1]!]
      },
      isDone: async id => {
        const [survey] = await world.db
          .select()
          .from(t.closingSurveys)
          .where(eq(t.closingSurveys.activityId, id))
        return survey!.toldAt !== null
      },
    },
    {
      task: 'tellOfMessage',
      doDue: notifyOfMessages,
      table: 'message_threads',
      column: 'id',
      prepare: async () => {
        const ids = two(await world.db.select({ id: t.messageThreads.id }).from(t.messageThreads))
        const unsaid = { toldAt: null, madeAt: PAST }
        await world.db.update(t.messageThreads).set(unsaid).where(inArray(t.messageThreads.id, ids))
        return ids
      },
      isDone: async id => {
        const [thread] = await world.db.select().from(t.messageThreads).where(eq(t.messageThreads.id, id))
        return thread!.toldAt !== null
      },
    },
    // last: what it writes is to be told of, too
    {
      task: 'writeByRule',
      doDue: sendByRules,
      table: 'message_threads',
      column: 'rule_id',
      each: 2,
      prepare: async () => [await ruleDue(await roundToDeal(false)), await ruleDue(await roundToDeal(false))],
      isDone: async id => (await world.db.$count(t.messageThreads, eq(t.messageThreads.ruleId, id))) > 0,
    },
  ]

  it('goes on where one item cannot be done; that is tried later and later, shown with its reason, and done in the end', async () => {
    const ines = await world.as('ines')
    const failures = async () => (await ines.json<DueFailures>('GET', '/api/due-failures')).body.failures
    for (const { task, doDue, table, column, each = 1, prepare, isDone } of DUE) {
      const [good, poisoned] = await prepare()
      await world.db.execute(sql`insert into poison values (${poisoned})`)
      await world.db.execute(
        sql.raw(
          `create trigger refuse before insert or update on ${table} for each row execute function refuse('${column}')`,
        ),
      )
      const of = async () => (await failures()).find(f => f.task === task && f.subjectId === poisoned)

      expect(await doDue(world.db, NOW), task).toBe(each)
      expect([await isDone(good), await isDone(poisoned)], task).toEqual([true, false])
      expect(await of()).toMatchObject({
        seminar: world.seminar.title,
        reason: 'P0001',
        tries: 1,
        nextAt: minutes(2).toISOString(),
      })

      // not every minute for ever
      expect([await doDue(world.db, NOW), await doDue(world.db, minutes(1)), (await of())!.tries]).toEqual([
        0, 0, 1,
      ])
      await doDue(world.db, minutes(2))
      expect(await of()).toMatchObject({ tries: 2, nextAt: minutes(6).toISOString() })

      await world.db.execute(sql.raw(`drop trigger refuse on ${table}`))
      expect(await doDue(world.db, minutes(6)), task).toBe(each)
      expect([await isDone(poisoned), await of()], task).toEqual([true, undefined])
    }
    expect(JSON.stringify(await failures())).not.toContain('Words of Liv')
  })
})
