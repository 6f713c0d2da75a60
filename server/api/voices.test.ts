import { and, eq, inArray, sql } from 'drizzle-orm'
import { parse } from 'csv-parse/sync'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { seededRandom } from '#core/chance/seededRandom'
import { measureText } from '#core/contributing/measureText'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import {
  recountAll,
  recountChecks,
  recountEchoes,
  recountNetwork,
  recountPeople,
  recountRhythm,
} from '#server/testing/recountVoices'
import { doc, testWorld, type World } from '#server/testing/world'
import type { PresenceView } from '#shared/voices/presence'
import type { OneVoice } from '#shared/voices/student'
import type { VoicesView } from '#shared/voices/voices'

describe('voices', () => {
  let world: World
  let ines: Client
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
  })
  afterAll(async () => {
    await world.close()
  })
  const voices = async (query = '', as = ines) =>
    (await as.json<VoicesView>('GET', `/api/seminars/${world.seminar.id}/voices${query}`)).body

  /** Every figure of a look at Voices against the database's own count of the rows as they stand. */
  async function expectSame(view: VoicesView, activityIds: readonly string[], from: string, to: string) {
    const span = { seminarId: world.seminar.id, timeZone: world.seminar.timeZone, activityIds, from, to }
    const [people, all, network, rhythm, echoes] = await Promise.all([
      recountPeople(world.db, span),
      recountAll(world.db, span),
      recountNetwork(world.db, span),
      recountRhythm(world.db, span),
      recountEchoes(world.db, span),
    ])
    const rows = new Map(people.map(r => [r.id, r]))
    const share = (part: number, of: number) => (of === 0 ? null : part / of)
    const near = (value: number | null, expected: number | null, digits: number) =>
      expected === null ? expect(value).toBeNull() : expect(value).toBeCloseTo(expected, digits)
    expect(view.people.length).toBeGreaterThan(10)
    for (const p of view.people) {
      const r = rows.get(p.id)!
      expect(r.ownWords, `words of ${p.name}, by their texts`).toBe(r.words)
      expect([
        p.name,
        p.contributions,
        p.words,
        p.wordsEach,
        p.daysActive,
        p.depth,
        p.answered,
        p.answeredBy,
        p.answersGot,
        p.shareAnswered,
        p.reciprocity,
        p.sentenceLength,
      ]).toEqual([
        p.name,
        r.contributions,
        r.words,
        share(r.words, r.contributions),
        r.days,
        r.depth,
        r.answered,
        r.answeredBy,
        r.got,
        share(r.heard, r.contributions),
        share(r.mutual, r.answered),
        share(r.words, r.sentences),
      ])
      near(
        p.ease,
        r.sentences === 0 ? null : 206.835 - 1.015 * (r.words / r.sentences) - 84.6 * (r.syllables / r.words),
        9,
      )
      near(p.medianToAnswer, r.wait, 0)
      near(p.firstAgainstDue, r.lead, 0)
      expect(p.between).toBeCloseTo(network.between.get(p.id)!, 9)
    }
    expect(view.all).toMatchObject({
      contributions: all.contributions,
      words: all.words,
      haveHalf: all.half,
      shareAnswered: share(all.heard, all.contributions),
      reciprocity: share(all.mutual, all.linked),
      staffShare: share(all.staffWords, all.staffWords + all.words),
      spoke: people.filter(r => r.contributions > 0).length,
    })
    const words = view.people.map(p => p.words)
    const [mean, pairs] = [
      words.reduce((a, b) => a + b, 0) / words.length,
      words.flatMap(a => words.map(b => Math.abs(a - b))).reduce((a, b) => a + b, 0),
    ]
    if (mean > 0) expect(view.all.gini).toBeCloseTo(pairs / (2 * words.length ** 2 * mean), 9)
    const written = (edges: ReadonlyArray<{ from: string; to: string; times: number }>) =>
      edges.map(e => `${e.from} ${e.to} ${e.times}`).sort()
    expect(written(view.edges)).toEqual(written(network.edges))
    const hours = new Map(rhythm.map(r => [`${r.day} ${r.hour}`, r.n]))
    expect(view.days.map(d => [d.day, d.count, d.hours])).toEqual(
      view.days.map(d => {
        const own = Array.from({ length: 24 }, (_, h) => hours.get(`${d.day} ${h}`) ?? 0)
        return [d.day, own.reduce((a, b) => a + b, 0), own]
      }),
    )
    const first = echoes
      .filter(e => e.answers > 0)
      .sort((a, b) => b.answers - a.answers || b.people - a.people || (a.id < b.id ? -1 : 1))
      .slice(0, 5)
    expect(view.mostAnswered.map(e => [e.id, e.answers, e.people])).toEqual(
      first.map(e => [e.id, e.answers, e.people]),
    )
    expect(view.unanswered.map(e => e.id)).toEqual(
      echoes
        .filter(e => !e.heard)
        .slice(0, 5)
        .map(e => e.id),
    )
  }
  async function expectChecks(view: VoicesView, activityId: string) {
    const rows = new Map(
      (
        await recountChecks(
          world.db,
          { seminarId: world.seminar.id, timeZone: world.seminar.timeZone },
          activityId,
        )
      ).map(r => [r.id, r]),
    )
    expect(view.people.map(p => [p.name, p.met, p.asked, true])).toEqual(
      view.people.map(p => {
        const r = rows.get(p.id)!
        return [p.name, r.met, r.asked, r.known]
      }),
    )
    expect(new Set(view.people.map(p => p.met)).size).toBeGreaterThan(1)
  }
  const published = async () =>
    (
      await world.db
        .select({ id: t.activities.id })
        .from(t.activities)
        .where(
          and(
            eq(t.activities.seminarId, world.seminar.id),
            eq(t.activities.isTemplate, false),
            eq(t.activities.state, 'published'),
          ),
        )
    ).map(a => a.id)

  it('are of one activity what the database counts by itself, and say what the silent did do', async () => {
    const view = await voices(`?activity=${world.breakwater.id}`)
    await expectSame(view, [world.breakwater.id], '2000-01-01', '2100-01-01')
    await expectChecks(view, world.breakwater.id)
    expect(view.activity).toMatchObject({ id: world.breakwater.id, kind: 'discussion' })
    for (const figure of ['ease', 'firstAgainstDue', 'medianToAnswer', 'reciprocity'] as const)
      expect(view.people.filter(p => p[figure] !== null).length, figure).toBeGreaterThan(10)
    expect(view.people.filter(p => p.between > 0).length).toBeGreaterThan(5)
    const silent = view.people.filter(p => p.contributions === 0)
    expect(silent.map(p => p.givenName).sort()).toContain('Paz')
    expect(silent.every(p => p.quiet !== null)).toBe(true)
    expect(view.mostAnswered[0]!.answers).toBeGreaterThanOrEqual(view.mostAnswered[1]!.answers)
  })

  it('are of the seminar and of some weeks what the database counts, and add up from week to week', async () => {
    const ids = await published()
    const all = await voices()
    await expectSame(all, ids, '2026-09-06T22:00:00Z', '2026-10-18T22:00:00Z')
    expect([all.from, all.to]).toEqual([1, 6])
    const weeks = await Promise.all([1, 2, 3, 4, 5, 6].map(w => voices(`?from=${w}&to=${w}`)))
    expect(weeks.reduce((n, v) => n + v.all.words, 0)).toBe(all.all.words)
    expect(weeks[3]!.people.map(p => p.before.words)).toEqual(weeks[2]!.people.map(p => p.words))
    const talks = await world.db
      .select({ id: t.activities.id })
      .from(t.activities)
      .where(
        and(
          eq(t.activities.seminarId, world.seminar.id),
          eq(t.activities.kind, 'discussion'),
          eq(t.activities.state, 'published'),
          eq(t.activities.isTemplate, false),
        ),
      )
    expect(talks.length).toBeGreaterThan(1)
    await expectSame(
      await voices('?kind=discussion'),
      talks.map(a => a.id),
      '2026-09-06T22:00:00Z',
      '2026-10-18T22:00:00Z',
    )
    const some = [world.breakwater.id, world.terms.id, world.walls.id]
    const several = await voices(`?among=${some.join(',')}`)
    await expectSame(several, some, '2026-09-06T22:00:00Z', '2026-10-18T22:00:00Z')
    expect(several.all.contributions).toBeGreaterThan(
      (await voices(`?activity=${world.breakwater.id}`)).all.contributions,
    )
    const [one, two] = await Promise.all(all.sections.map(s => voices(`?section=${s.id}`)))
    if (one && two) expect(one.all.words + two.all.words).toBe(all.all.words)
  })

  it('hold on a seminar of chance, with answers to oneself, deep threads and texts changed and withdrawn', async () => {
    const random = seededRandom(11)
    const from = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!
    const people = await world.db
      .select()
      .from(t.enrolments)
      .where(
        and(
          eq(t.enrolments.seminarId, world.seminar.id),
          inArray(t.enrolments.role, ['student', 'instructor']),
        ),
      )
    const sentences = () =>
      Array.from(
        { length: 1 + Math.floor(random() * 4) },
        () =>
          `${Array.from({ length: 1 + Math.floor(random() * 14) }, () =>
            from([
              'tide',
              'harbour',
              'the',
              'ruled',
              'toll’s',
              '1,342',
              'Sundvik',
              'little',
              'dues',
              'quay-side',
              'boxes',
              'é',
            ]),
          ).join(' ')}${from(['.', '?', '!', '.”', ' (p. 12).'])}`,
      ).join(' ')
    const paragraph = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] })
    const anyDoc = () => ({
      type: 'doc',
      content: [
        paragraph(sentences()),
        ...(random() < 0.3
          ? [{ type: 'blockquote', content: [paragraph(sentences())] }, paragraph(sentences())]
          : []),
        ...(random() < 0.2
          ? [
              {
                type: 'bulletList',
                content: [1, 2].map(() => ({ type: 'listItem', content: [paragraph(sentences())] })),
              },
            ]
          : []),
      ],
    })
    const made: Array<{ id: string; threadId: string }> = []
    for (let i = 0; i < 160; i++) {
      const parent = made.length > 0 && random() < 0.7 ? from(made) : null
      const [id, author, whole] = [v7(), from(people), anyDoc()]
      const at = new Date(Date.parse('2026-09-20T08:00:00Z') + i * 3_000_000)
      const { text, words } = measureText(whole)
      await world.db.insert(t.contributions).values({
        id,
        seminarId: world.seminar.id,
        activityId: world.dredge.id,
        authorId: author.id,
        type: parent ? 'reply' : 'post',
        parentId: parent?.id ?? null,
        threadId: parent?.threadId ?? id,
        slot: id,
        state: random() < 0.9 ? 'shown' : 'withdrawn',
        doc: whole,
        html: '<p>…</p>',
        text,
        words,
        madeAt: at,
        savedAt: at,
        shownAt: at,
      })
      made.push({ id, threadId: parent?.threadId ?? id })
    }
    await world.db.delete(t.extensions).where(eq(t.extensions.activityId, world.dredge.id))
    await world.db.insert(t.extensions).values(
      people
        .filter(p => p.role === 'student')
        .slice(0, 8)
        .map((p, i) => ({
          seminarId: world.seminar.id,
          activityId: world.dredge.id,
          enrolmentId: p.id,
          dueAt: new Date(Date.parse('2026-10-01T08:00:00Z') + i * 400_000_000),
          reason: 'chance',
        })),
    )
    const all = [world.dredge.id]
    await expectSame(await voices(`?activity=${world.dredge.id}`), all, '2000-01-01', '2100-01-01')
    await expectChecks(await voices(`?activity=${world.dredge.id}`), world.dredge.id)
    await expectSame(await voices(), await published(), '2026-09-06T22:00:00Z', '2026-10-18T22:00:00Z')
    // of some weeks only; what was answered after them is answered all the same
    await expectSame(
      await voices('?from=3&to=3'),
      await published(),
      '2026-09-20T22:00:00Z',
      '2026-09-27T22:00:00Z',
    )
    // words that were changed are counted anew
    const [row] = await world.db
      .select()
      .from(t.contributions)
      .where(
        and(
          inArray(
            t.contributions.id,
            made.map(m => m.id),
          ),
          eq(t.contributions.state, 'shown'),
        ),
      )
      .orderBy(t.contributions.id)
    await world.db
      .update(t.contributions)
      .set({ doc: doc('One. Two. Three. Four. Five. Six. Seven.'), words: 7, version: row!.version + 1 })
      .where(eq(t.contributions.id, row!.id))
    await expectSame(await voices(`?activity=${world.dredge.id}`), all, '2000-01-01', '2100-01-01')
  })

  it('of presence count each substantive act of the one who looks, and nobody else’s', async () => {
    const view = await voices()
    const me = await world.enrolment('ines')
    const rows = await world.db.execute<{ id: string; acts: number }>(sql`
      select s.id, ((select count(*) from contributions c join contributions p on p.id = c.parent_id where c.author_id = ${me.id} and p.author_id = s.id and c.state = 'shown' and c.shown_at <= '2026-10-14T08:20:00Z' and c.shown_at >= '2026-09-06T22:00:00Z'
          and (c.words >= 25 or c.type = 'comment' or p.detail -> 'note' ->> 'kind' = 'question'))
        + (select count(*) from contributions c join page_comments pc on pc.id = c.id join wiki_pages w on w.id = pc.page_id where c.author_id = ${me.id} and w.claimed_by = s.id and c.parent_id is null and c.state = 'shown')
        + (select count(*) from marks m join activities a on a.id = m.activity_id where a.seminar_id = ${world.seminar.id} and m.enrolment_id = s.id and m.state = 'returned' and coalesce(m.return_by, m.marked_by) = ${me.id})
        + (select count(*) from letter_replies l where l.enrolment_id = s.id and l.author_id = ${me.id})
        + (select count(*) from messages m join message_threads h on h.id = m.thread_id where h.student_id = s.id and m.author_id = ${me.id} and m.direct and h.told_at is not null))::int as acts
      from enrolments s where s.seminar_id = ${world.seminar.id} and s.role = 'student' and s.state = 'active'`)
    const acts = new Map(rows.map(r => [r.id, r.acts]))
    expect(view.people.map(p => [p.name, p.fromMe.acts])).toEqual(
      view.people.map(p => [p.name, acts.get(p.id)]),
    )
    expect((await voices('', await world.as('henrik'))).people.map(p => p.fromMe.acts)).not.toEqual(
      view.people.map(p => p.fromMe.acts),
    )
  })

  it('as a record of presence, of everyone who teaches, are what the database counts by week, with the longest time between', async () => {
    const { body: view } = await ines.json<PresenceView>(
      'GET',
      `/api/seminars/${world.seminar.id}/presence?by=all`,
    )
    const rows = await world.db.execute<{ id: string; week: number | null; n: number; gap: number }>(sql`
      with staff as (select id from enrolments where seminar_id = ${world.seminar.id} and role in ('instructor', 'assistant')),
      students as (select id from enrolments where seminar_id = ${world.seminar.id} and role = 'student' and state = 'active'),
      acts as (
        select p.author_id as student, c.shown_at as at from contributions c join contributions p on p.id = c.parent_id where c.author_id in (select id from staff) and c.state = 'shown' and (c.words >= 25 or c.type = 'comment' or p.detail -> 'note' ->> 'kind' = 'question')
        union all select w.claimed_by, c.shown_at from contributions c join page_comments pc on pc.id = c.id join wiki_pages w on w.id = pc.page_id where c.author_id in (select id from staff) and c.parent_id is null and c.state = 'shown'
        union all select m.enrolment_id, m.returned_at from marks m where m.state = 'returned' and coalesce(m.return_by, m.marked_by) in (select id from staff)
        union all select l.enrolment_id, l.at from letter_replies l where l.author_id in (select id from staff)
        union all select h.student_id, m.at from messages m join message_threads h on h.id = m.thread_id where m.direct and h.told_at is not null and m.author_id in (select id from staff)),
      counted as (select student, at from acts where student in (select id from students) and at >= '2026-09-06T22:00:00Z' and at <= '2026-10-14T08:20:00Z'),
      marks_ as (select student, at from counted union all select id, '2026-09-06T22:00:00Z'::timestamptz from students union all select id, '2026-10-14T08:20:00Z'::timestamptz from students),
      gaps as (select student, max(floor(extract(epoch from at - before) / 86400))::int as gap from (select student, at, lag(at) over (partition by student order by at) as before from marks_) x group by student)
      select g.student as id, g.gap, w.week, coalesce(w.n, 0)::int as n from gaps g left join (select student, (((at at time zone ${world.seminar.timeZone})::date - ${world.seminar.firstDay}::date) / 7 + 1)::int as week, count(*)::int as n from counted group by 1, 2) w on w.student = g.student`)
    expect(view.students.reduce((n, x) => n + x.acts, 0)).toBeGreaterThan(40)
    for (const x of view.students) {
      const own = rows.filter(r => r.id === x.id)
      expect([x.name, x.longestGapDays, x.weeks]).toEqual([
        x.name,
        own[0]!.gap,
        view.weeks.map(w => own.find(r => r.week === w.number)?.n ?? 0),
      ])
    }
    const log = await (
      await ines.send('GET', `/api/seminars/${world.seminar.id}/presence/log?as=csv&by=all`)
    ).text()
    expect(
      (parse(log, { columns: true, bom: true }) as Array<{ counts: string }>).filter(l => l.counts === 'yes'),
    ).toHaveLength(view.students.reduce((n, x) => n + x.acts, 0))
  })

  it('of one student go through the term as the database counts them, beside the medians of everyone', async () => {
    const me = await world.enrolment('rasmus')
    const { body: one } = await ines.json<OneVoice>(
      'GET',
      `/api/seminars/${world.seminar.id}/voices/${me.id}`,
    )
    const all = await voices()
    expect(one.voice).toEqual(all.people.find(p => p.id === me.id))
    const ids = sql.join(
      (await published()).map(id => sql`${id}::uuid`),
      sql`, `,
    )
    const rows = await world.db.execute<{ week: number; words: number; n: number; usual: number }>(sql`
      with said as (select c.author_id, c.words, (((c.shown_at at time zone ${world.seminar.timeZone})::date - ${world.seminar.firstDay}::date) / 7 + 1)::int as week from contributions c where c.activity_id in (${ids}) and c.state = 'shown' and c.type not in ('pageVersion', 'review') and c.shown_at < '2026-10-14T08:20:00Z'),
      each_ as (select e.id, w.week, coalesce(sum(s.words), 0) as words, count(s.week) as n from enrolments e cross join generate_series(1, 6) w(week) left join said s on s.author_id = e.id and s.week = w.week where e.seminar_id = ${world.seminar.id} and e.role = 'student' and e.state = 'active' group by 1, 2)
      select week, (sum(words) filter (where id = ${me.id}))::int as words, (sum(n) filter (where id = ${me.id}))::int as n, (percentile_cont(0.5) within group (order by words))::float8 as usual from each_ group by week order by week`)
    expect(one.weeks.map(w => [w.number, w.words, w.contributions, w.typicalWords])).toEqual(
      rows.map(r => [r.week, r.words, r.n, r.usual]),
    )
    const words = all.people.map(p => p.words).sort((a, b) => a - b)
    expect(one.typical.words).toBe((words[11]! + words[12]!) / 2)
  })

  it('are taken away as a table with a line for each student, and nothing in it that a spreadsheet would run', async () => {
    await world.db
      .update(t.persons)
      .set({ familyName: '=cmd()' })
      .where(eq(t.persons.email, 'paz@northmere.example'))
    const file = await (
      await ines.send('GET', `/api/seminars/${world.seminar.id}/voices/table?activity=${world.breakwater.id}`)
    ).text()
    const lines = parse(file, { columns: true, bom: true }) as Array<Record<string, string>>
    const view = await voices(`?activity=${world.breakwater.id}`)
    expect(lines.map(l => Number(l.words))).toEqual(view.people.map(p => p.words))
    expect(lines.find(l => l['given name'] === 'Paz')!['family name']).toBe("'=cmd()")
  })

  it('are of no other seminar’s activities, sections or groups', async () => {
    for (const query of [
      `activity=${v7()}`,
      `section=${v7()}`,
      `group=${v7()}`,
      `among=${world.breakwater.id},${v7()}`,
    ])
      expect((await ines.json('GET', `/api/seminars/${world.seminar.id}/voices?${query}`)).status).toBe(404)
  })
})
