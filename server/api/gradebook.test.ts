import { rowsOf } from '#server/database/client'
import { parse } from 'csv-parse/sync'
import { v7 } from 'uuid'
import { and, eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { Gradebook } from '#shared/marking/gradebook'
import type { OutcomesView } from '#shared/marking/outcomes'
import type { SettingsView } from '#shared/people/settings'

/**
 * The final share of every student from the stored tables alone: no line of the core's is in it. Nothing is
 * dropped here; dropping is proved in the core.
 */
const FINAL = (missingIsZero: boolean, held: boolean) =>
  sql.raw(`
with item as (
  select m.enrolment_id, a.category_id, a.id,
    case when m.returned is not null or not ${held}
      or m.state <> 'held' then round((m.returned ->> 'points')::numeric * a.points / (m.returned ->> 'max')::numeric)
      when m.points is not null then least(a.points, m.points)::numeric end as points, a.points::numeric as max
  from activities a join marks m on m.activity_id = a.id
  where a.state = 'published' and not a.practice and not a.is_template and a.scale <> 'none' and a.points > 0
    and not exists (select 1 from excuses x where x.activity_id = a.id and x.enrolment_id = m.enrolment_id)
), missing as (
  select e.id as enrolment_id, a.category_id, a.id, 0::numeric as points, a.points::numeric as max
  from activities a join enrolments e on e.seminar_id = a.seminar_id and e.role = 'student' and e.state = 'active'
  where ${missingIsZero} and a.state = 'published' and not a.practice and not a.is_template and a.scale <> 'none'
    and a.points > 0 and (a.audience ->> 'kind' = 'everyone'
    or exists (select 1 from group_members g where g.enrolment_id = e.id and g.group_plan_id::text = a.audience ->> 'groupPlanId'))
    and exists (select 1 from expectations x where x.activity_id = a.id)
    and greatest((select max(p.ends_at) from phases p
      where p.activity_id = a.id and p.name in ('write', 'respond', 'revise', 'review')),
      (select x.due_at from extensions x where x.activity_id = a.id and x.enrolment_id = e.id)) < '2026-10-14T08:20:00Z'
    and not exists (select 1 from marks m
      where m.activity_id = a.id and m.enrolment_id = e.id and (m.state <> 'open' or m.returned is not null))
    and not exists (select 1 from contributions c where c.activity_id = a.id and c.author_id = e.id and c.state = 'shown')
    and not exists (select 1 from excuses x where x.activity_id = a.id and x.enrolment_id = e.id)
), counted as (
  select * from item where points is not null and category_id is not null union all select * from missing where category_id is not null
), best as (
  select c.enrolment_id, c.category_id, cat.weight_percent as weight,
    sum(points) / sum(max) as share
  from counted c join categories cat on cat.id = c.category_id group by 1, 2, 3
)
select enrolment_id, sum(weight * share) / sum(weight) as share from best group by 1`)

describe('the gradebook', () => {
  let world: World
  let ines: Client
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
  })
  afterAll(() => world.close())

  const book = async (as = ines) =>
    (await as.json<Gradebook>('GET', `/api/seminars/${world.seminar.id}/gradebook`)).body
  async function recomputed(b: Gradebook): Promise<Map<string, number>> {
    const rows = await rowsOf<{ enrolment_id: string; share: string | null }>(
      world.db,
      FINAL(b.grading.missingIsZero, b.grading.countHeld),
    )
    return new Map([...rows].filter(r => r.share !== null).map(r => [r.enrolment_id, Number(r.share)]))
  }
  async function expectSame(b: Gradebook) {
    const independent = await recomputed(b)
    for (const row of b.rows) {
      if (independent.has(row.enrolmentId))
        expect(row.share, row.name).toBeCloseTo(independent.get(row.enrolmentId)!, 10)
      else expect(row.share, row.name).toBeNull()
    }
  }
  async function settings(change: (s: SettingsView['settings']) => object) {
    const { body } = await ines.json<SettingsView>('GET', `/api/seminars/${world.seminar.id}/settings`)
    expect(
      (
        await ines.json('PUT', `/api/seminars/${world.seminar.id}/settings`, {
          key: v7(),
          baseVersion: body.version,
          settings: { ...body.settings, ...change(body.settings) },
        })
      ).status,
    ).toBe(200)
  }

  it('comes to the same figures as SQL alone, over the demo and however it is set to count', async () => {
    await expectSame(await book())
    for (const [missingIsZero, countHeld] of [
      [false, false],
      [true, true],
      [false, true],
    ] as const) {
      await settings(s => ({ grading: { ...s.grading, missingIsZero, countHeld } }))
      const b = await book()
      expect(b.grading).toMatchObject({ missingIsZero, countHeld })
      await expectSame(b)
    }
  })

  it('reports outcomes as SQL counts them, by criterion and section, and keeps their CASE identifiers', async () => {
    const path = `/api/seminars/${world.seminar.id}/outcomes`
    const JUDGED = sql`select o.id as outcome, o.identifier, m.enrolment_id, e.section_id, m.activity_id, rc.title,
      cm.points * rc.weight as got, rc.max * rc.weight as most from criterion_marks cm join marks m on m.id = cm.mark_id
      join rubric_criteria rc on rc.id = cm.criterion_id
      join criterion_outcomes co on co.criterion_id = rc.id join outcomes o on o.id = co.outcome_id
      join enrolments e on e.id = m.enrolment_id join activities a on a.id = m.activity_id
        where e.role = 'student' and e.state = 'active' and not a.practice
        and (m.state = 'returned'
        or (m.state = 'held' and (select (grading ->> 'countHeld')::boolean from seminars where id = ${world.seminar.id})))
      and not exists (select 1 from jsonb_array_elements(m.excused_from) x where x ->> 'criterionId' = rc.id::text)`
    for (const chance of [false, true]) {
      if (chance) {
        // every criterion is evidence of the first outcome, too
        await world.db.execute(
          sql`insert into criterion_outcomes (id, seminar_id, criterion_id, outcome_id)
            select gen_random_uuid(), c.seminar_id, c.id, o.id from rubric_criteria c
            join lateral (select id from outcomes where seminar_id = c.seminar_id order by position limit 1) o on true
            where c.seminar_id = ${world.seminar.id} on conflict do nothing`,
        )
        await world.db.execute(
          sql`update criterion_marks cm
            set points = abs(hashtext(cm.mark_id::text || cm.criterion_id::text)) % (rc.max + 1) from rubric_criteria rc
            where rc.id = cm.criterion_id`,
        )
      }
      for (const from of [1, 60, 77, 100]) {
        const view = (await ines.json<OutcomesView>('GET', `${path}?from=${from}`)).body
        const count = (by: ReturnType<typeof sql>) =>
          rowsOf<{
            outcome: string
            key: string | null
            judged: number
            above: number
            mean: number
          }>(
            world.db,
            sql`
          with judged as (${JUDGED}),
            each_ as (select outcome, enrolment_id, ${by} as key, sum(got) as got, sum(most) as most from judged group by 1, 2, 3)
          select outcome, key, count(*)::int as judged,
            (count(*) filter (where got * 100 >= ${from} * most))::int as above, avg(got::float8 / most)::float8 as mean
            from each_ group by 1, 2`,
          )
        const [whole, sections, criteria] = [
          await count(sql`''`),
          await count(sql`section_id::text`),
          await count(sql`activity_id::text || title`),
        ]
        expect(view.outcomes.filter(o => o.judged > 0).length).toBeGreaterThan(1)
        for (const o of view.outcomes) {
          const mine = (rows: typeof whole) => rows.filter(r => r.outcome === o.id)
          expect([o.code, from, o.judged, o.above]).toEqual([
            o.code,
            from,
            mine(whole)[0]?.judged ?? 0,
            mine(whole)[0]?.above ?? 0,
          ])
          if (o.mean !== null) expect(o.mean).toBeCloseTo(mine(whole)[0]!.mean, 10)
          const sorted = (list: unknown[]) => list.map(x => JSON.stringify(x)).sort()
          expect(sorted(o.sections.map(s => [s.sectionId, s.judged, s.above]))).toEqual(
            sorted(mine(sections).map(r => [r.key, r.judged, r.above])),
          )
          expect(
            sorted(o.criteria.map(c => [c.activityId + c.criterion, c.judged, c.above, c.below])),
          ).toEqual(sorted(mine(criteria).map(r => [r.key, r.judged, r.above, r.judged - r.above])))
          expect(o.people.filter(p => p.above).length).toBe(o.above)
        }
      }
    }
    const lines = parse(await (await ines.send('GET', `${path}/table?by=criterion&from=60`)).text(), {
      columns: true,
      bom: true,
    }) as Array<Record<string, string>>
    expect(new Set(lines.map(l => l['outcome identifier (CASE)']))).toEqual(
      new Set((await world.db.select().from(t.outcomes)).map(o => o.identifier)),
    )
  })

  it('comes to the same figures over seminars of chance', async () => {
    const next = seededRandom(11)
    const students = await world.db
      .select()
      .from(t.enrolments)
      .where(and(eq(t.enrolments.role, 'student'), eq(t.enrolments.state, 'active')))
    const all = await world.db
      .select()
      .from(t.activities)
      .where(and(eq(t.activities.state, 'published'), eq(t.activities.isTemplate, false)))
    const letter = { type: 'doc', content: [] }
    for (let round = 0; round < 4; round++) {
      await world.db.transaction(async tx => {
        for (const activity of all) {
          const max = 100 * (1 + Math.floor(next() * 40))
          await tx
            .update(t.activities)
            .set({
              points: max,
              practice: next() < 0.15,
              rubricVersionId: null,
              combine: null,
              scale: 'points',
            })
            .where(eq(t.activities.id, activity.id))
          for (const s of students) {
            if (next() < 0.3) continue
            const points = Math.floor(next() * (max + 1))
            const findState = () => {
              if (next() < 0.5) return 'returned'
              if (next() < 0.5) return 'held'
              return 'open'
            }
            const state = findState()
            const returned =
              state === 'returned' || next() < 0.2
                ? {
                    html: '',
                    points: Math.floor(next() * (max + 1)),
                    max,
                    by: 'x',
                    rubric: null,
                    criteria: [],
                    citations: [],
                  }
                : null
            const values = {
              seminarId: world.seminar.id,
              activityId: activity.id,
              enrolmentId: s.id,
              points,
              overridePoints: points,
              state: state as 'open',
              returned,
              returnedAt: returned ? new Date() : null,
              letter,
              letterText: '',
              markedBy: s.id,
              savedAt: new Date(),
            }
            await tx
              .insert(t.marks)
              .values(values)
              .onConflictDoUpdate({
                target: [t.marks.activityId, t.marks.enrolmentId],
                set: {
                  points,
                  overridePoints: points,
                  state: values.state,
                  returned,
                  returnedAt: values.returnedAt,
                },
              })
            await tx
              .delete(t.excuses)
              .where(and(eq(t.excuses.activityId, activity.id), eq(t.excuses.enrolmentId, s.id)))
            if (next() < 0.1)
              await tx.insert(t.excuses).values({
                seminarId: world.seminar.id,
                activityId: activity.id,
                enrolmentId: s.id,
                reason: 'ill',
                madeBy: s.id,
              })
          }
        }
      })
      await expectSame(await book())
    }
  })
})
