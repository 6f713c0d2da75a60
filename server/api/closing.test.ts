import { rowsOf } from '#server/database/client'
import { and, eq, sql } from 'drizzle-orm'
import { strFromU8, unzipSync } from 'fflate'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { keptAnswers } from '#core/closing/questions'
import { seededRandom } from '#core/chance/seededRandom'
import * as t from '#server/database/schema'
import { notifyOfClosing } from '#server/services/closing/closingSurveys'
import { Client, TEST_NOW } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { ClosingView } from '#shared/closing/closing'

const NOW = Date.parse(TEST_NOW)
const hours = (n: number) => new Date(NOW + n * 3_600_000).toISOString()
const [scale, choice, open] = [v7(), v7(), v7()]
const questions = [
  { id: scale, kind: 'scale', text: 'How much?', steps: 5, low: 'little', high: 'much' },
  { id: choice, kind: 'choice', text: 'Which?', options: ['one', 'two', 'three'], several: true },
  { id: open, kind: 'open', text: 'What else?' },
] as const
const WHO = ['liv', 'nico', 'femke', 'rasmus', 'saoirse', 'kadri']

describe('closing questions', () => {
  let world: World
  let ines: Client
  const students = new Map<string, Client>()
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
    for (const who of WHO) students.set(who, await world.as(who))
  })
  afterAll(() => world.close())
  const path = (id: string) => `/api/activities/${id}/closing`
  const ask = async (id: string, named: boolean, more: object = {}) =>
    ines.json<ClosingView>('PUT', path(id), {
      questions,
      named,
      opensAt: hours(-1),
      closesAt: hours(1),
      baseVersion: null,
      ...more,
    })
  const answer = (who: string, id: string, n: number) =>
    students.get(who)!.json<ClosingView>('PUT', `${path(id)}/answers`, {
      answers: { [scale]: (n % 5) + 1, [choice]: [n % 3], [open]: `Words ${n}` },
    })
  const stored = async (id: string) =>
    (await world.db.select().from(t.closingSurveys).where(eq(t.closingSurveys.activityId, id)))[0]!

  it('without names leave nothing that ties an answer to who gave it: not by order, by time, by id, nor by what was stored beside it', async () => {
    const order = WHO.map((who, n) => ({ who, n }))
    const random = seededRandom(4)
    const other = [...order].sort(() => random() - 0.5)
    const before = await snapshot()
    for (const [id, list] of [
      [world.dredge.id, order],
      [world.calm.id, other],
    ] as const) {
      expect((await ask(id, false)).status).toBe(200)
      for (const { who, n } of list)
        expect((await answer(who, id, n)).body.mine).toEqual({ answered: true, answers: {} })
    }
    // the same people with the same answers, in whatever order they came, are the same row
    const [a, b] = [await stored(world.dredge.id), await stored(world.calm.id)]
    expect(a.takers).toEqual([...a.takers].sort())
    expect({ takers: b.takers, urns: JSON.stringify(b.urns) }).toEqual({
      takers: a.takers,
      urns: JSON.stringify(a.urns),
    })
    // and nothing else was written anywhere by answering
    const after = await snapshot()
    expect(
      Object.entries(after)
        .filter(([table, n]) => n !== before[table])
        .map(([table]) => table),
    ).toEqual(['closing_rounds'])
    const row = JSON.stringify(
      (
        await rowsOf(
          world.db,
          sql`select to_jsonb(r) as row from closing_rounds r where activity_id = ${world.dredge.id}`,
        )
      )[0],
    )
    expect(Object.keys((JSON.parse(row) as { row: object }).row).sort()).toEqual([
      'activity_id',
      'closes_at',
      'named',
      'opens_at',
      'questions',
      'round',
      'seminar_id',
      'takers',
      'told_at',
      'urns',
      'version',
    ])
    // answered once, however often it is sent
    const again = await answer('liv', world.dredge.id, 3)
    expect(again.status).toBe(200)
    expect(JSON.stringify((await stored(world.dredge.id)).urns)).toBe(JSON.stringify(a.urns))
  })

  /** Rows of every table; but sign-ins, and what the queue tells of when questions open, which is not answering. */
  // what the minute's work sends by itself meanwhile is left out: notices, mails, and the stand-in's letter box
  async function snapshot(): Promise<Record<string, number>> {
    const tables = await rowsOf<{ name: string }>(
      world.db,
      sql`select table_name as name from information_schema.tables
        where table_schema = 'public' and table_type = 'BASE TABLE'
        and table_name not in ('sessions', 'rate_limits', 'notices', 'mails', 'mailroom_messages') order by 1`,
    )
    const out: Record<string, number> = {}
    for (const { name } of tables)
      out[name] = (
        await rowsOf<{ n: number }>(world.db, sql`select count(*)::int as n from ${sql.identifier(name)}`)
      )[0]!.n
    return out
  }

  it('without names are shown to nobody before they close, and never of fewer than four', async () => {
    const view = (await ines.json<ClosingView>('GET', path(world.dredge.id))).body
    expect(view.staff).toMatchObject({ answered: 6, results: null, people: [], mayChange: false })
    expect((await ines.send('GET', `${path(world.dredge.id)}/export`)).status).toBe(409)
    await world.db
      .update(t.closingSurveys)
      .set({ closesAt: new Date(NOW - 1000) })
      .where(eq(t.closingSurveys.activityId, world.dredge.id))
    const closed = (await ines.json<ClosingView>('GET', path(world.dredge.id))).body
    expect(closed.staff!.results).toMatchObject([
      { answered: 6, counts: [2, 1, 1, 1, 1], median: 2.5 },
      { counts: [2, 2, 2] },
      { answered: 6, answers: WHO.map((_, n) => `Words ${n}`) },
    ])
    expect(JSON.stringify(closed)).not.toContain((await world.enrolment('liv')).id)
    const csv = await (await ines.send('GET', `${path(world.dredge.id)}/export`)).text()
    expect(csv).toContain('What else?,Words 3,1')
    expect(csv).not.toMatch(/Brandt|Corvo|liv@/)
    const rows = await stored(world.dredge.id)
    await world.db
      .update(t.closingSurveys)
      .set({ takers: rows.takers.slice(0, 3) })
      .where(eq(t.closingSurveys.activityId, world.dredge.id))
    expect((await ines.json<ClosingView>('GET', path(world.dredge.id))).body.staff!.results).toBeNull()
    expect((await answer('liv', world.dredge.id, 1)).body).toMatchObject({ code: 'closed' })
  })

  it('stand as they are from the first answer on, names and all; the end can be moved', async () => {
    const now = (await ines.json<ClosingView>('GET', path(world.calm.id))).body
    const change = (more: object) =>
      ines.json<{ code?: string }>('PUT', path(world.calm.id), {
        questions,
        named: false,
        opensAt: now.round!.opensAt,
        closesAt: now.round!.closesAt,
        baseVersion: now.round!.version,
        ...more,
      })
    expect((await change({ named: true })).body.code).toBe('answered')
    expect((await change({ questions: questions.slice(1) })).body.code).toBe('answered')
    expect((await ines.send('DELETE', path(world.calm.id))).status).toBe(409)
    expect((await change({ closesAt: hours(5) })).status).toBe(200)
    expect((await change({ closesAt: hours(6) })).body.code).toBe('changed') // its base is outdated now
  })

  it('with names can be changed until they close, and say who answered what', async () => {
    expect((await ask(world.roll.id, true)).status).toBe(200)
    await answer('liv', world.roll.id, 0)
    expect((await answer('liv', world.roll.id, 4)).body.mine).toMatchObject({
      answered: true,
      answers: { [scale]: 5 },
    })
    const view = (await ines.json<ClosingView>('GET', path(world.roll.id))).body
    expect(view.staff).toMatchObject({
      answered: 1,
      people: [{ name: 'Liv Brandt', answers: { [scale]: 5, [open]: 'Words 4' } }],
    })
    expect((await students.get('nico')!.json<ClosingView>('GET', path(world.roll.id))).body).toMatchObject({
      staff: null,
      mine: { answered: false, answers: {} },
    })
    expect(await (await ines.send('GET', `${path(world.roll.id)}/export`)).text()).toContain(
      'Liv Brandt,5,two,Words 4',
    )
  })

  it('come, in figures of chance and in the demo, to what the database makes of the stored answers', async () => {
    const random = seededRandom(9)
    const students = await world.db
      .select({ id: t.enrolments.id })
      .from(t.enrolments)
      .where(
        and(
          eq(t.enrolments.seminarId, world.seminar.id),
          eq(t.enrolments.role, 'student'),
          eq(t.enrolments.state, 'active'),
        ),
      )
      .orderBy(t.enrolments.id)
    const any = () => ({
      ...(random() < 0.9 && { [scale]: 1 + Math.floor(random() * 5) }),
      ...(random() < 0.8 && { [choice]: [0, 1, 2].filter(() => random() < 0.5) }),
      ...(random() < 0.7 && {
        [open]: `The ${['tide', 'toll', 'wall'][Math.floor(random() * 3)]!} and the tide`,
      }),
    })
    const given = students.map(({ id }) => ({ id, answers: keptAnswers(questions, any()) }))
    const urns = Object.fromEntries(
      questions.map(q => [
        q.id,
        given.flatMap(g => (g.answers[q.id] === undefined ? [] : [g.answers[q.id]!])),
      ]),
    )
    await world.db
      .update(t.closingSurveys)
      .set({ questions, takers: given.map(g => g.id), urns, closesAt: new Date(NOW - 1000) })
      .where(eq(t.closingSurveys.activityId, world.calm.id))
    await world.db.delete(t.closingAnswers).where(eq(t.closingAnswers.activityId, world.roll.id))
    await world.db.insert(t.closingAnswers).values(
      given.map(g => ({
        activityId: world.roll.id,
        seminarId: world.seminar.id,
        enrolmentId: g.id,
        answers: g.answers,
        handedInAt: new Date(NOW),
      })),
    )
    const rounds = await world.db
      .select()
      .from(t.closingSurveys)
      .where(eq(t.closingSurveys.seminarId, world.seminar.id))
    let compared = 0
    for (const round of rounds) {
      const { staff } = (await ines.json<ClosingView>('GET', path(round.activityId))).body
      if (!staff?.results) continue
      for (const [i, q] of round.questions.entries()) {
        const [row] = await rowsOf<{
          n: number
          mean: number | null
          median: number | null
          counts: Array<{ place: number; n: number }> | null
          texts: string[] | null
        }>(
          world.db,
          sql`
          with given as (
            select a.value from closing_rounds r cross join lateral jsonb_array_elements(r.urns -> ${q.id}) a(value)
              where r.activity_id = ${round.activityId} and not r.named
            union all select a.answers -> ${q.id} from closing_answers a join closing_rounds r using (activity_id)
              where a.activity_id = ${round.activityId} and r.named and a.answers ? ${q.id}),
          places as (select (g.value #>> '{}')::int as place from given g where jsonb_typeof(g.value) = 'number'
            union all select (p.value #>> '{}')::int from given g
            cross join lateral jsonb_array_elements(case jsonb_typeof(g.value) when 'array' then g.value else '[]' end) p(value))
          select (select count(*)::int from given) as n, (select avg(place)::float8 from places) as mean,
            (select percentile_cont(0.5) within group (order by place)::float8 from places) as median,
            (select json_agg(json_build_object('place', place, 'n', n))
              from (select place, count(*)::int as n from places group by 1) x) as counts,
              (select json_agg(value #>> '{}') from given where jsonb_typeof(value) = 'string') as texts`,
        )
        const r = staff.results[i]!
        expect([q.text, r.answered]).toEqual([q.text, row!.n])
        if (r.kind === 'open') expect(r.answers).toEqual([...(row!.texts ?? [])].sort())
        else
          expect(r.counts).toEqual(
            r.counts.map(
              (_, at) => row!.counts?.find(c => c.place === (r.kind === 'scale' ? at + 1 : at))?.n ?? 0,
            ),
          )
        if (r.kind === 'scale')
          expect([r.mean?.toFixed(9) ?? null, r.median]).toEqual([row!.mean?.toFixed(9) ?? null, row!.median])
        // the list takes the forms of a word together: of words of one form it is their count
        if (r.kind === 'open')
          for (const w of r.words.filter(x => ['tide', 'toll', 'wall'].includes(x.word) && q.id === open))
            expect([w.word, w.answers]).toEqual([
              w.word,
              row!.texts!.filter(text => text.split(' ').includes(w.word)).length,
            ])
        compared++
      }
    }
    expect(compared).toBeGreaterThanOrEqual(8) // of chance with names and without, and the demo's
  })

  it('are given away by no two exports around one answer: not while they are open, not after, and they do not open again', async () => {
    const id = world.terms.id
    expect((await ask(id, false)).status).toBe(200)
    /** Everything that can be taken away, but for how many have answered. */
    async function taken() {
      const view = (await ines.json<ClosingView>('GET', path(id))).body
      const csv = await (await ines.send('GET', `${path(id)}/export`)).text()
      const zip = await ines.send('GET', `/api/seminars/${world.seminar.id}/archive`)
      const parts = unzipSync(new Uint8Array(await zip.arrayBuffer()))
      const file = Object.keys(parts).find(name => name.includes('closing_rounds'))!
      const archived = strFromU8(parts[file]!)
        .split('\n')
        .filter(line => line.includes(id))
        .map(line => line.replace(/"told_at": [^,}]+/, '')) // when students were told that it is open
      return { results: view.staff!.results, csv, archived }
    }
    const states = []
    for (const [n, who] of WHO.entries()) {
      expect((await answer(who, id, n)).status).toBe(200)
      if (n >= 3) states.push(await taken())
    }
    for (const state of states) {
      expect(state).toEqual(states[0])
      expect(state.results).toBeNull()
      expect(state.archived.join()).not.toContain('Words')
    }
    const { round } = (await ines.json<ClosingView>('GET', path(id))).body
    const change = (more: object) =>
      ines.json<{ code?: string; version?: number }>('PUT', path(id), {
        ...{ questions, named: false, opensAt: round!.opensAt, baseVersion: round!.version },
        closesAt: new Date(NOW - 1000).toISOString(),
        ...more,
      })
    expect((await change({})).status).toBe(200)
    const closed = await taken()
    expect(closed.results).toMatchObject([{ answered: 6 }, {}, {}])
    expect(closed.archived.join()).toContain('Words 3')
    for (const who of WHO) expect(closed.archived.join()).not.toContain((await world.enrolment(who)).id)
    const again = await change({ closesAt: hours(2), baseVersion: round!.version + 1 })
    expect(again).toMatchObject({ status: 409, body: { code: 'closedForGood' } })
    expect((await answer('liv', id, 0)).body).toMatchObject({ code: 'closed' })
    expect(await taken()).toEqual(closed)
  })

  it('are asked again in a round of their own: with its own answers, its own minimum and its own names; the one before stays', async () => {
    const id = world.city.id
    expect((await ask(id, false)).status).toBe(200)
    // there is no round to begin while one is open, nor one after the next
    expect(await ask(id, false, { round: 2, opensAt: hours(0), closesAt: hours(2) })).toMatchObject({
      status: 422,
      body: { fields: { opensAt: expect.stringContaining('The questions before close') } },
    })
    expect((await ask(id, false, { round: 3, opensAt: hours(2), closesAt: hours(3) })).status).toBe(404)
    for (const [n, who] of WHO.slice(0, 4).entries()) expect((await answer(who, id, n)).status).toBe(200)
    expect((await ask(id, false, { closesAt: hours(-0.5), baseVersion: 1 })).status).toBe(200)
    const read = (round?: number) =>
      ines.json<ClosingView>('GET', `${path(id)}${round ? `?round=${round}` : ''}`)
    const first = (await read()).body
    expect(first.staff).toMatchObject({ answered: 4, isFinal: true, mayAskAgain: true })
    const csv = await (await ines.send('GET', `${path(id)}/export`)).text()

    // begun again with other words and with names, by three: without names they would be too few
    const again = [{ id: v7(), kind: 'open', text: 'And now?' }]
    const second = { questions: again, round: 2, opensAt: hours(-0.5), closesAt: hours(1) }
    expect((await ask(id, false, second)).body.round).toMatchObject({ number: 2, questions: again })
    const liv = students.get('liv')!
    expect((await liv.json<ClosingView>('GET', path(id))).body).toMatchObject({
      state: 'open',
      rounds: [],
      round: { number: 2 },
      mine: { answered: false },
    })
    for (const who of WHO.slice(0, 3))
      expect(
        (
          await students
            .get(who)!
            .json<ClosingView>('PUT', `${path(id)}/answers`, { answers: { [again[0]!.id]: `Now ${who}` } })
        ).body.mine,
      ).toEqual({ answered: true, answers: {} })
    // an answer to the round before is none to this one
    expect((await answer('rasmus', id, 1)).status).toBe(422)
    expect((await read()).body.staff).toMatchObject({ answered: 3, results: null, isFinal: false })

    // the round before can be read as it was, and nothing changes it any more
    const { rounds: _rounds, staff, ...before } = (await read(1)).body
    const { rounds: _none, staff: was, ...unchanged } = first
    expect(before).toEqual(unchanged)
    expect(staff).toEqual({ ...was, mayAskAgain: false })
    expect(await (await ines.send('GET', `${path(id)}/export?round=1`)).text()).toBe(csv)
    expect(await ask(id, false, { closesAt: hours(3), baseVersion: 2 })).toMatchObject({
      status: 409,
      body: { code: 'askedAgain' },
    })
    expect((await read(3)).status).toBe(404)

    // closed with three, its answers stay unread, in the archive, too
    await ask(id, false, { ...second, closesAt: hours(-0.1), baseVersion: 1 })
    expect((await read()).body.staff).toMatchObject({ answered: 3, results: null, mayAskAgain: true })
    const zip = await ines.send('GET', `/api/seminars/${world.seminar.id}/archive`)
    const parts = unzipSync(new Uint8Array(await zip.arrayBuffer()))
    expect(
      Object.values(parts)
        .map(part => strFromU8(part))
        .join(),
    ).not.toContain('Now liv')

    // a third one, with names, is taken away as long as nobody has answered it: then the second is the last again
    expect((await ask(id, true, { round: 3, opensAt: hours(1), closesAt: hours(2) })).status).toBe(200)
    expect((await liv.json<ClosingView>('GET', path(id))).body.round!.number).toBe(2)
    expect((await ines.send('DELETE', path(id))).status).toBe(200)
    expect((await read()).body.rounds.map(r => r.number)).toEqual([1, 2])
  })

  it('are nobody’s but staff’s before they open; then each student is told, once', async () => {
    expect((await ask(world.walls.id, false, { opensAt: hours(1), closesAt: hours(48) })).status).toBe(200)
    expect((await students.get('liv')!.json('GET', path(world.walls.id))).status).toBe(404)
    expect((await answer('liv', world.walls.id, 1)).status).toBe(404)
    const n = await world.db.$count(t.notices, eq(t.notices.activityId, world.walls.id))
    const told = await Promise.all([0, 1].map(() => notifyOfClosing(world.db, new Date(NOW + 2 * 3_600_000))))
    expect(told.reduce((a, b) => a + b, 0)).toBeGreaterThan(0)
    const after = await world.db.$count(t.notices, eq(t.notices.activityId, world.walls.id))
    expect(after).toBeGreaterThan(n)
    await notifyOfClosing(world.db, new Date(NOW + 3 * 3_600_000))
    expect(await world.db.$count(t.notices, eq(t.notices.activityId, world.walls.id))).toBe(after)
  })
})
