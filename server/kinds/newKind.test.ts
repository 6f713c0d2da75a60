import { and, eq, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { KINDS } from '#core/kinds'
import { discussion } from '#core/kinds/discussion/definition'
import { ACTIVITY_KINDS, type ActivityKind, type KindDefinition } from '#core/kinds/kind'
import type { Actor, ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import * as t from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { changeActivity } from '#server/services/composing/changeActivity'
import { makeActivity } from '#server/services/composing/makeActivity'
import { publishActivity } from '#server/services/composing/publish'
import type { KindHooks } from '#server/services/contributing'
import { postContribution } from '#server/services/contributing/writing/postContribution'
import { deskView, markingQueue } from '#server/services/marking/desk'
import { ownLetters } from '#server/services/marking/letters'
import { recordView } from '#server/services/marking/record'
import { holdMark, returnMark } from '#server/services/marking/returnMark'
import { saveMark } from '#server/services/marking/saveMark'
import { activityView } from '#server/services/screens/activityView'
import { readThread } from '#server/services/screens/readThread'
import { termPlan } from '#server/services/screens/termPlan'
import { NOW } from '#server/testing/actByChance'
import { testDatabase } from '#server/testing/database'
import { doc } from '#server/testing/world'
import { ActivityView } from '#shared/contributing/activity'
import { PostWrite } from '#shared/contributing/thread'
import { PackedThread, packThread, unpackThread } from '#shared/contributing/packedThread'
import { DeskView, MarkingQueue, MarkWrite, RecordView } from '#shared/marking/desk'
import { ActivityMake, ActivityPatch } from '#shared/planning/composer'
import { TermPlan } from '#shared/planning/plan'
import { KIND_HOOKS } from './hooks'

// the list of kinds, as it is with one more folder: contracts are made of it when they are loaded
vi.mock('#core/kinds/kind', async original => {
  const kinds = await original<typeof import('#core/kinds/kind')>()
  return { ...kinds, ACTIVITY_KINDS: [...kinds.ACTIVITY_KINDS, 'debate'] }
})

/** A kind that exists in this test alone: everyone opens with a side they take, and answers others. */
const DEBATE = 'debate' as ActivityKind
const definition: KindDefinition = {
  ...discussion,
  kind: DEBATE,
  entryType: 'entry',
  answerType: 'comment',
  entryWord: ['opening speech', 'opening speeches'],
  answerWord: ['objection', 'objections'],
  oncePerStudent: true,
  namesSilent: false,
  asksQuestions: () => false,
  expects: ['entries', 'replies'],
  usualRules: [
    { kind: 'entries', need: 1, minWords: 3, due: 'write' },
    { kind: 'replies', need: 1, minWords: 1, due: 'respond' },
  ],
  usualTitle: 'New debate',
  usualWriteFirst: false,
  ownTalk: [],
}
const hooks: KindHooks = {
  entryDetail: async (_db, _actor, { title }, posting) => {
    if (posting && !title) throw refusedField('title', 'noSide', 'Say which side you take.')
    return title ? { title } : {}
  },
}

describe('a kind that is one more folder in each layer', () => {
  let database: Awaited<ReturnType<typeof testDatabase>>
  let db: Database
  let ines: Actor
  let liv: Actor
  let nico: Actor
  beforeAll(async () => {
    database = await testDatabase()
    ;({ db } = database)
    // what a new kind brings along: its line in each registry, and its name in the column's check
    Object.assign(KINDS, { debate: definition })
    Object.assign(KIND_HOOKS, { debate: hooks })
    await db.execute(sql`alter table activities drop constraint activities_kind_known`)
    ;[ines, liv, nico] = (await Promise.all(['ines', 'liv', 'nico'].map(actorOf))) as [Actor, Actor, Actor]
  })
  afterAll(() => database.drop())

  async function actorOf(key: string): Promise<Actor> {
    const [row] = await db
      .select({ person: t.persons, enrolment: t.enrolments, seminar: t.seminars })
      .from(t.persons)
      .innerJoin(t.enrolments, eq(t.enrolments.personId, t.persons.id))
      .innerJoin(t.seminars, and(eq(t.seminars.id, t.enrolments.seminarId), eq(t.seminars.code, 'HC 342')))
      .where(eq(t.persons.email, `${key}@northmere.example`))
    return { ...row!, studentsEye: false }
  }
  const at = async (actor: Actor, id: string): Promise<ActivityActor> => {
    const [activity] = await db.select().from(t.activities).where(eq(t.activities.id, id))
    return { ...actor, activity: activity! }
  }
  const post = async (actor: Actor, id: string, write: object, now: Date) =>
    postContribution(db, await at(actor, id), PostWrite.parse({ key: v7(), parentId: null, ...write }), now)

  it('is planned, published, written, read, marked and returned without a line elsewhere', async () => {
    expect(ACTIVITY_KINDS).toContain(DEBATE)
    const id = v7()
    const make = ActivityMake.parse({ id, kind: DEBATE, week: 7, unitId: null, templateId: null })
    await makeActivity(db, ines, make, NOW)
    const planned = await at(ines, id)
    expect(planned.activity).toMatchObject({ kind: DEBATE, title: 'New debate', state: 'draft' })
    const { change } = ActivityPatch.shape
    const composed = await changeActivity(
      db,
      planned,
      {
        ...{ key: v7(), baseVersion: planned.activity.version, tell: false },
        change: change.parse({ title: 'Should the toll fall?', scale: 'points', points: 1000 }),
      },
      NOW,
    )
    expect(composed.body.rules.map(r => r.rule)).toEqual(definition.usualRules)
    await expect(
      changeActivity(
        db,
        await at(ines, id),
        {
          ...{ key: v7(), baseVersion: composed.version, tell: false },
          change: {
            rules: [
              { id: v7(), rule: { kind: 'ownPages', need: 1, minWords: 1, due: 'write' }, needed: true },
            ],
          },
        },
        NOW,
      ),
    ).rejects.toMatchObject({ code: 'noPages' })
    await publishActivity(
      db,
      await at(ines, id),
      { key: v7(), baseVersion: composed.version, opens: 'now', tell: true },
      NOW,
    )

    const soon = new Date(NOW.getTime() + 60_000)
    await expect(post(liv, id, { doc: doc('It should fall soon.') }, soon)).rejects.toMatchObject({
      code: 'noSide',
    })
    const speech = await post(liv, id, { doc: doc('It should fall soon.'), title: 'For' }, soon)
    await expect(post(liv, id, { doc: doc('And once more.'), title: 'For' }, soon)).rejects.toMatchObject({
      code: 'once',
    })
    await post(nico, id, { doc: doc('It should never fall.'), title: 'Against' }, soon)
    await post(nico, id, { parentId: speech.id, doc: doc('Who would pay for the walls?') }, soon)

    const thread = unpackThread(PackedThread.parse(packThread(await readThread(db, await at(liv, id), soon))))
    expect(thread.contributions).toMatchObject([
      { type: 'entry', title: 'For' },
      { type: 'entry', title: 'Against' },
      { type: 'comment', parentId: speech.id },
    ])
    expect(thread.checks.map(c => c.met)).toEqual([true, false])
    const seen = ActivityView.parse(await activityView(db, await at(nico, id), soon))
    expect(seen).toMatchObject({ kind: DEBATE, standing: 'ready', review: null, lexicon: null, open: true })
    const plan = TermPlan.parse(await termPlan(db, ines, soon))
    expect(plan.activities.find(a => a.id === id)).toMatchObject({ kind: DEBATE, counts: { ready: 1 } })
    const queue = MarkingQueue.parse(await markingQueue(db, ines, soon))
    expect(queue.activities.find(a => a.id === id)).toMatchObject({ kind: DEBATE, counts: { ready: 1 } })

    const marking = await at(ines, id)
    const who = nico.enrolment.id
    expect(DeskView.parse(await deskView(db, marking, soon)).students.find(s => s.id === who)).toMatchObject({
      standing: 'ready',
    })
    const record = RecordView.parse(await recordView(db, marking, who, soon))
    expect(record.items.map(i => i.type)).toEqual(['entry', 'comment'])
    const mark = MarkWrite.parse({
      ...{ key: v7(), baseVersion: 0, steps: [], citations: [], letter: doc('Well argued.') },
      ...{ markerNote: '', lateWaived: false, override: { points: 900, reason: '' } },
    })
    const saved = await saveMark(db, marking, who, mark, soon)
    const held = await holdMark(db, marking, who, v7(), saved.version, soon)
    await returnMark(db, marking, who, v7(), held.version, soon)
    const letters = await ownLetters(db, nico)
    expect(letters.find(l => l.activityId === id)).toMatchObject({ kind: DEBATE })
    expect((await activityView(db, await at(nico, id), soon)).standing).toBe('returned')
  })
})
