import { and, eq, inArray, sql } from 'drizzle-orm'
import { parse } from 'csv-parse/sync'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { seededRandom } from '#core/chance/seededRandom'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { doc, testWorld, type World } from '#server/testing/world'
import type { PresenceView } from '#shared/voices/presence'
import type { OneVoice } from '#shared/voices/student'
import type { VoicesView } from '#shared/voices/voices'

describe('voices', () => {
  let world: World
  let ines: Client
  beforeAll(async () => { world = await testWorld(); ines = await world.as('ines') })
  afterAll(async () => { await world.close() })
  const voices = async (query = '', as = ines) => (await as.json<VoicesView>('GET', `/api/seminars/${world.seminar.id}/voices${query}`)).body

  /** The same figures, counted by the database from the rows as they stand. */
  async function recount(activityIds: readonly string[], from: string, to: string) {
    const ids = sql.join(activityIds.map(id => sql`${id}::uuid`), sql`, `)
    return await world.db.execute<Record<string, number | string | null>>(sql`
      with said as (select c.*, p.author_id as answers, p.shown_at as answered_at from contributions c left join contributions p on p.id = c.parent_id
        where c.activity_id in (${ids}) and c.state = 'shown' and c.type not in ('pageVersion', 'review') and c.shown_at >= ${from}::timestamptz and c.shown_at < ${to}::timestamptz),
      students as (select e.id from enrolments e where e.seminar_id = ${world.seminar.id} and e.role = 'student' and e.state = 'active'),
      meant as (select e.id from enrolments e where e.seminar_id = ${world.seminar.id} and (e.role in ('instructor', 'assistant') or (e.role = 'student' and e.state = 'active')))
      select s.id, (select count(*)::int from said where author_id = s.id) as contributions, (select coalesce(sum(words), 0)::int from said where author_id = s.id) as words,
        (select count(distinct (shown_at at time zone ${world.seminar.timeZone})::date)::int from said where author_id = s.id) as days,
        (select count(distinct answers)::int from said where author_id = s.id and answers <> s.id and answers in (select id from students)) as answered,
        (select count(distinct author_id)::int from said where answers = s.id and author_id <> s.id and author_id in (select id from students)) as answered_by,
        (select percentile_cont(0.5) within group (order by extract(epoch from shown_at - answered_at) * 1000)::float8 from said where author_id = s.id and answers <> s.id) as wait,
        (select count(*)::int from said a where author_id = s.id and exists (select 1 from contributions r where r.parent_id = a.id and r.state = 'shown' and r.type not in ('pageVersion', 'review') and r.author_id <> a.author_id and r.author_id in (select id from meant))) as heard
      from students s`)
  }
  async function expectSame(view: VoicesView, activityIds: readonly string[], from: string, to: string) {
    const rows = new Map((await recount(activityIds, from, to)).map(r => [r.id as string, r]))
    expect(view.people.length).toBeGreaterThan(10)
    for (const p of view.people) {
      const r = rows.get(p.id)!
      expect([p.contributions, p.words, p.daysActive, p.answered, p.answeredBy, p.shareAnswered], p.name).toEqual([r.contributions, r.words, r.days, r.answered, r.answered_by, r.contributions === 0 ? null : (r.heard as number) / (r.contributions as number)])
      if (r.wait === null) expect(p.medianToAnswer).toBeNull()
      else expect(p.medianToAnswer).toBeCloseTo(r.wait as number, 0)
    }
    const words = view.people.map(p => p.words)
    const [mean, pairs] = [words.reduce((a, b) => a + b, 0) / words.length, words.flatMap(a => words.map(b => Math.abs(a - b))).reduce((a, b) => a + b, 0)]
    if (mean > 0) expect(view.all.gini).toBeCloseTo(pairs / (2 * words.length ** 2 * mean), 9)
    expect(view.all.spoke).toBe(view.people.filter(p => p.contributions > 0).length)
    expect(view.days.reduce((n, d) => n + d.count, 0)).toBeLessThanOrEqual(view.all.contributions)
    return rows
  }
  const published = async () => (await world.db.select({ id: t.activities.id }).from(t.activities).where(and(eq(t.activities.seminarId, world.seminar.id), eq(t.activities.isTemplate, false), eq(t.activities.state, 'published')))).map(a => a.id)

  it('are of one activity what the database counts by itself, and say what the silent did do', async () => {
    const view = await voices(`?activity=${world.breakwater.id}`)
    await expectSame(view, [world.breakwater.id], '2000-01-01', '2100-01-01')
    expect(view.activity).toMatchObject({ id: world.breakwater.id, kind: 'discussion' })
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
    const talks = await world.db.select({ id: t.activities.id }).from(t.activities).where(and(eq(t.activities.seminarId, world.seminar.id), eq(t.activities.kind, 'discussion'), eq(t.activities.state, 'published'), eq(t.activities.isTemplate, false)))
    expect(talks.length).toBeGreaterThan(1)
    await expectSame(await voices('?kind=discussion'), talks.map(a => a.id), '2026-09-06T22:00:00Z', '2026-10-18T22:00:00Z')
    const [one, two] = await Promise.all(all.sections.map(s => voices(`?section=${s.id}`)))
    if (one && two) expect(one.all.words + two.all.words).toBe(all.all.words)
  })

  it('hold on a seminar of chance, with answers to oneself, deep threads and texts changed and withdrawn', async () => {
    const random = seededRandom(11)
    const people = await world.db.select().from(t.enrolments).where(and(eq(t.enrolments.seminarId, world.seminar.id), inArray(t.enrolments.role, ['student', 'instructor'])))
    const made: Array<{ id: string, threadId: string }> = []
    for (let i = 0; i < 160; i++) {
      const parent = made.length > 0 && random() < 0.7 ? made[Math.floor(random() * made.length)]! : null
      const [id, author, n] = [v7(), people[Math.floor(random() * people.length)]!, 1 + Math.floor(random() * 60)]
      const at = new Date(Date.parse('2026-09-20T08:00:00Z') + i * 3_000_000)
      const text = Array.from({ length: n }, (_, k) => `tide${k}`).join(' ')
      await world.db.insert(t.contributions).values({ id, seminarId: world.seminar.id, activityId: world.dredge.id, authorId: author.id, type: parent ? 'reply' : 'post', parentId: parent?.id ?? null, threadId: parent?.threadId ?? id, slot: id, state: random() < 0.9 ? 'shown' : 'withdrawn', doc: doc(text), html: `<p>${text}</p>`, text, words: n, madeAt: at, savedAt: at, shownAt: at })
      made.push({ id, threadId: parent?.threadId ?? id })
    }
    await expectSame(await voices(`?activity=${world.dredge.id}`), [world.dredge.id], '2000-01-01', '2100-01-01')
    await expectSame(await voices(), await published(), '2026-09-06T22:00:00Z', '2026-10-18T22:00:00Z')
    // words that were changed are counted anew
    const [row] = await world.db.select().from(t.contributions).where(and(eq(t.contributions.activityId, world.dredge.id), eq(t.contributions.state, 'shown')))
    const one = async () => (await voices(`?activity=${world.dredge.id}`)).people.reduce((n, p) => n + (p.sentenceLength === null ? 0 : Math.round(p.words / p.sentenceLength)), 0)
    const before = await one()
    const isStudent = (await voices(`?activity=${world.dredge.id}`)).people.some(p => p.id === row!.authorId)
    await world.db.update(t.contributions).set({ doc: doc('One. Two. Three. Four. Five. Six. Seven.'), words: row!.words, version: row!.version + 1 }).where(eq(t.contributions.id, row!.id))
    expect(await one() - before).toBe(isStudent ? 6 : 0)
  })

  it('of presence count each substantive act of the one who looks, and nobody else’s', async () => {
    const view = await voices()
    const me = await world.enrolment('ines')
    const rows = await world.db.execute<{ id: string, acts: number }>(sql`
      select s.id, ((select count(*) from contributions c join contributions p on p.id = c.parent_id where c.author_id = ${me.id} and p.author_id = s.id and c.state = 'shown' and c.shown_at <= '2026-10-14T08:20:00Z' and c.shown_at >= '2026-09-06T22:00:00Z'
          and (c.words >= 25 or c.type = 'comment' or p.detail -> 'note' ->> 'kind' = 'question'))
        + (select count(*) from contributions c join page_comments pc on pc.id = c.id join wiki_pages w on w.id = pc.page_id where c.author_id = ${me.id} and w.claimed_by = s.id and c.parent_id is null and c.state = 'shown')
        + (select count(*) from marks m join activities a on a.id = m.activity_id where a.seminar_id = ${world.seminar.id} and m.enrolment_id = s.id and m.state = 'returned' and coalesce(m.return_by, m.marked_by) = ${me.id})
        + (select count(*) from letter_replies l where l.enrolment_id = s.id and l.author_id = ${me.id})
        + (select count(*) from messages m join message_threads h on h.id = m.thread_id where h.student_id = s.id and m.author_id = ${me.id} and m.direct and h.told_at is not null))::int as acts
      from enrolments s where s.seminar_id = ${world.seminar.id} and s.role = 'student' and s.state = 'active'`)
    const acts = new Map(rows.map(r => [r.id, r.acts]))
    expect(view.people.map(p => [p.name, p.fromMe.acts])).toEqual(view.people.map(p => [p.name, acts.get(p.id)]))
    expect((await voices('', await world.as('henrik'))).people.map(p => p.fromMe.acts)).not.toEqual(view.people.map(p => p.fromMe.acts))
  })

  it('as a record of presence, of everyone who teaches, are what the database counts by week, with the longest time between', async () => {
    const { body: view } = await ines.json<PresenceView>('GET', `/api/seminars/${world.seminar.id}/presence?by=all`)
    const rows = await world.db.execute<{ id: string, week: number | null, n: number, gap: number }>(sql`
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
      expect([x.name, x.longestGapDays, x.weeks]).toEqual([x.name, own[0]!.gap, view.weeks.map(w => own.find(r => r.week === w.number)?.n ?? 0)])
    }
    const log = await (await ines.send('GET', `/api/seminars/${world.seminar.id}/presence/log?as=csv&by=all`)).text()
    expect((parse(log, { columns: true, bom: true }) as Array<{ counts: string }>).filter(l => l.counts === 'yes')).toHaveLength(view.students.reduce((n, x) => n + x.acts, 0))
  })

  it('of one student go through the term as the database counts them, beside the medians of everyone', async () => {
    const me = await world.enrolment('rasmus')
    const { body: one } = await ines.json<OneVoice>('GET', `/api/seminars/${world.seminar.id}/voices/${me.id}`)
    const all = await voices()
    expect(one.voice).toEqual(all.people.find(p => p.id === me.id))
    const ids = sql.join((await published()).map(id => sql`${id}::uuid`), sql`, `)
    const rows = await world.db.execute<{ week: number, words: number, n: number, usual: number }>(sql`
      with said as (select c.author_id, c.words, (((c.shown_at at time zone ${world.seminar.timeZone})::date - ${world.seminar.firstDay}::date) / 7 + 1)::int as week from contributions c where c.activity_id in (${ids}) and c.state = 'shown' and c.type not in ('pageVersion', 'review') and c.shown_at < '2026-10-14T08:20:00Z'),
      each_ as (select e.id, w.week, coalesce(sum(s.words), 0) as words, count(s.week) as n from enrolments e cross join generate_series(1, 6) w(week) left join said s on s.author_id = e.id and s.week = w.week where e.seminar_id = ${world.seminar.id} and e.role = 'student' and e.state = 'active' group by 1, 2)
      select week, (sum(words) filter (where id = ${me.id}))::int as words, (sum(n) filter (where id = ${me.id}))::int as n, (percentile_cont(0.5) within group (order by words))::float8 as usual from each_ group by week order by week`)
    expect(one.weeks.map(w => [w.number, w.words, w.contributions, w.typicalWords])).toEqual(rows.map(r => [r.week, r.words, r.n, r.usual]))
    const words = all.people.map(p => p.words).sort((a, b) => a - b)
    expect(one.typical.words).toBe((words[11]! + words[12]!) / 2)
  })

  it('are taken away as a table with a line for each student, and nothing in it that a spreadsheet would run', async () => {
    await world.db.update(t.persons).set({ familyName: '=cmd()' }).where(eq(t.persons.email, 'paz@northmere.example'))
    const file = await (await ines.send('GET', `/api/seminars/${world.seminar.id}/voices/table?activity=${world.breakwater.id}`)).text()
    const lines = parse(file, { columns: true, bom: true }) as Array<Record<string, string>>
    const view = await voices(`?activity=${world.breakwater.id}`)
    expect(lines.map(l => Number(l.words))).toEqual(view.people.map(p => p.words))
    expect(lines.find(l => l['given name'] === 'Paz')!['family name']).toBe('\'=cmd()')
  })

  it('are of no other seminar’s activities, sections or groups', async () => {
    for (const query of ['activity', 'section', 'group']) expect((await ines.json('GET', `/api/seminars/${world.seminar.id}/voices?${query}=${v7()}`)).status).toBe(404)
  })
})
