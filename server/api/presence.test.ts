import { rowsOf } from '#server/database/client'
import { and, eq, sql } from 'drizzle-orm'
import { parse } from 'csv-parse/sync'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { PresenceView } from '#shared/voices/presence'
import type { OneVoice } from '#shared/voices/student'
import type { VoicesView } from '#shared/voices/voices'

describe('presence and single students', () => {
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

  it('of presence count each substantive act of the one who looks, and nobody else’s', async () => {
    const view = await voices()
    const me = await world.enrolment('ines')
    const rows = await rowsOf<{ id: string; acts: number }>(
      world.db,
      sql`
      select s.id, ((select count(*) from contributions c join contributions p on p.id = c.parent_id
        where c.author_id = ${me.id} and p.author_id = s.id and c.state = 'shown'
        and c.shown_at <= '2026-10-14T08:20:00Z' and c.shown_at >= '2026-09-06T22:00:00Z'
          and (c.words >= 25 or c.type = 'comment' or p.detail -> 'note' ->> 'kind' = 'question'))
        + (select count(*) from contributions c join page_comments pc on pc.id = c.id
          join wiki_pages w on w.id = pc.page_id
          where c.author_id = ${me.id} and w.claimed_by = s.id and c.parent_id is null and c.state = 'shown')
        + (select count(*) from marks m join activities a on a.id = m.activity_id
          where a.seminar_id = ${world.seminar.id} and m.enrolment_id = s.id and m.state = 'returned'
          and coalesce(m.return_by, m.marked_by) = ${me.id})
        + (select count(*) from letter_replies l where l.enrolment_id = s.id and l.author_id = ${me.id})
        + (select count(*) from messages m join message_threads h on h.id = m.thread_id
          where h.student_id = s.id and m.author_id = ${me.id} and m.direct and h.told_at is not null))::int as acts
      from enrolments s where s.seminar_id = ${world.seminar.id} and s.role = 'student' and s.state = 'active'`,
    )
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
    const rows = await rowsOf<{ id: string; week: number | null; n: number; gap: number }>(
      world.db,
      sql`
      with staff as (select id from enrolments where seminar_id = ${world.seminar.id} and role in ('instructor', 'assistant')),
      students as (select id from enrolments where seminar_id = ${world.seminar.id} and role = 'student' and state = 'active'),
      acts as (
        select p.author_id as student, c.shown_at as at from contributions c join contributions p on p.id = c.parent_id
          where c.author_id in (select id from staff) and c.state = 'shown'
          and (c.words >= 25 or c.type = 'comment' or p.detail -> 'note' ->> 'kind' = 'question')
        union all select w.claimed_by, c.shown_at from contributions c join page_comments pc on pc.id = c.id
          join wiki_pages w on w.id = pc.page_id where c.author_id in (select id from staff) and c.parent_id is null and c.state = 'shown'
        union all select m.enrolment_id, m.returned_at from marks m
          where m.state = 'returned' and coalesce(m.return_by, m.marked_by) in (select id from staff)
        union all select l.enrolment_id, l.at from letter_replies l where l.author_id in (select id from staff)
        union all select h.student_id, m.at from messages m join message_threads h on h.id = m.thread_id
          where m.direct and h.told_at is not null and m.author_id in (select id from staff)),
      counted as (select student, at from acts
        where student in (select id from students) and at >= '2026-09-06T22:00:00Z' and at <= '2026-10-14T08:20:00Z'),
      marks_ as (select student, at from counted union all select id, '2026-09-06T22:00:00Z'::timestamptz from students
        union all select id, '2026-10-14T08:20:00Z'::timestamptz from students),
      gaps as (select student, max(floor(extract(epoch from at - before) / 86400))::int as gap
        from (select student, at, lag(at) over (partition by student order by at) as before from marks_) x group by student)
      select g.student as id, g.gap, w.week, coalesce(w.n, 0)::int as n from gaps g
        left join (select student,
        (((at at time zone ${world.seminar.timeZone})::date - ${world.seminar.firstDay}::date) / 7 + 1)::int as week,
        count(*)::int as n from counted group by 1, 2) w on w.student = g.student`,
    )
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
    const rows = await rowsOf<{ week: number; words: number; n: number; usual: number }>(
      world.db,
      sql`
      with said as (select c.author_id, c.words,
        (((c.shown_at at time zone ${world.seminar.timeZone})::date - ${world.seminar.firstDay}::date) / 7 + 1)::int as week from contributions c where c.activity_id in (${ids}) and c.state = 'shown' and c.type not in ('pageVersion', 'review') and c.shown_at < '2026-10-14T08:20:00Z'),
      each_ as (select e.id, w.week, coalesce(sum(s.words), 0) as words, count(s.week) as n from enrolments e
        cross join generate_series(1, 6) w(week) left join said s on s.author_id = e.id and s.week = w.week
        where e.seminar_id = ${world.seminar.id} and e.role = 'student' and e.state = 'active' group by 1, 2)
      select week, (sum(words) filter (where id = ${me.id}))::int as words,
        (sum(n) filter (where id = ${me.id}))::int as n,
        (percentile_cont(0.5) within group (order by words))::float8 as usual from each_ group by week order by week`,
    )
    expect(one.weeks.map(w => [w.number, w.words, w.contributions, w.typicalWords])).toEqual(
      rows.map(r => [r.week, r.words, r.n, r.usual]),
    )
    const words = all.people.map(p => p.words).sort((a, b) => a - b)
    expect(one.typical.words).toBe((words[11]! + words[12]!) / 2)
  })

  it('are taken away as a table with a line for each student, and nothing in it that a spreadsheet would run', async () => {
    await world.db
      .update(t.enrolments)
      .set({ familyName: '=cmd()' })
      .where(eq(t.enrolments.id, (await world.enrolment('paz')).id))
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
