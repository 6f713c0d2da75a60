import { strFromU8, unzipSync } from 'fflate'
import { parse } from 'csv-parse/sync'
import { v7 } from 'uuid'
import { and, eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { doc, testWorld, type World } from '#server/testing/world'
import type { ActivityView } from '#shared/contributing/activity'
import type { MarkView, RecordView } from '#shared/marking/desk'
import type { Distribution, Gradebook, GradeRow, MarksPreview, OwnGrades } from '#shared/marking/gradebook'
import type { OutcomesView } from '#shared/marking/outcomes'
import type { LetterView } from '#shared/marking/letter'
import type { SettingsView } from '#shared/people/settings'

interface Refusal {
  readonly code: string
  readonly detail: string
  readonly fields: Record<string, string>
}

/** The final share of every student from the stored tables alone: no line of the core's is in it. Nothing is dropped here; dropping is proved in the core. */
const FINAL = (missingIsZero: boolean, held: boolean) =>
  sql.raw(`
with item as (
  select m.enrolment_id, a.category_id, a.id,
    case when m.state = 'returned' or not ${held} or m.state <> 'held' then round((m.returned ->> 'points')::numeric * a.points / (m.returned ->> 'max')::numeric) when m.points is not null then least(a.points, m.points)::numeric end as points, a.points::numeric as max
  from activities a join marks m on m.activity_id = a.id
  where a.state = 'published' and not a.practice and not a.is_template and a.scale <> 'none' and a.points > 0
    and not exists (select 1 from excuses x where x.activity_id = a.id and x.enrolment_id = m.enrolment_id)
), missing as (
  select e.id as enrolment_id, a.category_id, a.id, 0::numeric as points, a.points::numeric as max
  from activities a join enrolments e on e.seminar_id = a.seminar_id and e.role = 'student' and e.state = 'active'
  where ${missingIsZero} and a.state = 'published' and not a.practice and not a.is_template and a.scale <> 'none' and a.points > 0 and (a.audience ->> 'kind' = 'everyone' or exists (select 1 from group_members g where g.enrolment_id = e.id and g.group_plan_id::text = a.audience ->> 'groupPlanId'))
    and exists (select 1 from expectations x where x.activity_id = a.id)
    and greatest((select max(p.ends_at) from phases p where p.activity_id = a.id and p.name in ('write', 'respond', 'revise', 'review')), (select x.due_at from extensions x where x.activity_id = a.id and x.enrolment_id = e.id)) < '2026-10-14T08:20:00Z'
    and not exists (select 1 from marks m where m.activity_id = a.id and m.enrolment_id = e.id and (m.state <> 'open' or m.returned is not null))
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
    const rows = await world.db.execute<{ enrolment_id: string; share: string | null }>(
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
    const JUDGED = sql`select o.id as outcome, o.identifier, m.enrolment_id, e.section_id, m.activity_id, rc.title, cm.points * rc.weight as got, rc.max * rc.weight as most from criterion_marks cm join marks m on m.id = cm.mark_id join rubric_criteria rc on rc.id = cm.criterion_id join outcomes o on o.id = rc.outcome_id
      join enrolments e on e.id = m.enrolment_id join activities a on a.id = m.activity_id where e.role = 'student' and e.state = 'active' and not a.practice and (m.state = 'returned' or (m.state = 'held' and (select (grading ->> 'countHeld')::boolean from seminars where id = ${world.seminar.id})))
      and not exists (select 1 from jsonb_array_elements(m.excused_from) x where x ->> 'criterionId' = rc.id::text)`
    for (const chance of [false, true]) {
      if (chance)
        await world.db.execute(
          sql`update criterion_marks cm set points = abs(hashtext(cm.mark_id::text || cm.criterion_id::text)) % (rc.max + 1) from rubric_criteria rc where rc.id = cm.criterion_id`,
        )
      for (const from of [1, 60, 77, 100]) {
        const view = (await ines.json<OutcomesView>('GET', `${path}?from=${from}`)).body
        const count = (by: ReturnType<typeof sql>) =>
          world.db.execute<{
            outcome: string
            key: string | null
            judged: number
            above: number
            mean: number
          }>(sql`
          with judged as (${JUDGED}), each_ as (select outcome, enrolment_id, ${by} as key, sum(got) as got, sum(most) as most from judged group by 1, 2, 3)
          select outcome, key, count(*)::int as judged, (count(*) filter (where got * 100 >= ${from} * most))::int as above, avg(got::float8 / most)::float8 as mean from each_ group by 1, 2`)
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

describe('figures that can explain themselves', () => {
  let world: World
  let ines: Client
  let rubric: NonNullable<ActivityView['rubric']>
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
    rubric = (await ines.json<ActivityView>('GET', `/api/activities/${world.breakwater.id}`)).body.rubric!
  })
  afterAll(() => world.close())

  const path = (rest: string) => `/api/seminars/${world.seminar.id}${rest}`
  const book = async () => (await ines.json<Gradebook>('GET', path('/gradebook'))).body
  const own = async (who: string) =>
    (await (await world.as(who)).json<OwnGrades>('GET', path('/grades'))).body
  const at = async (student: string, rest: string) =>
    `/api/activities/${world.breakwater.id}/records/${(await world.enrolment(student)).id}${rest}`
  const cell = async (who: string, row?: GradeRow) => {
    const b = await book()
    const i = b.columns.findIndex(c => c.id === world.breakwater.id)
    const id = (await world.enrolment(who)).id
    const r = row ?? b.rows.find(x => x.enrolmentId === id)!
    return { points: r.points[i], state: r.states[i], counts: r.counts[i] }
  }
  const set = async (who: string, was: number | null, points: number | null, reason = 'Counted again.') =>
    ines.json<GradeRow & Refusal>('PUT', await at(who, '/points'), { key: v7(), was, points, reason })

  it('shows every student exactly what SQL makes of the stored steps, in letters, gradebook and files', async () => {
    // returned marks of the demo: Σ weight·points / Σ weight·max of the steps, times the points, rounded half up to half points; none of them was late
    const rows = await world.db.execute<{ enrolment_id: string; points: string; shown: string }>(sql`
      select m.enrolment_id, floor(sum(rc.weight * cm.points)::numeric / (select sum(weight * max) from rubric_criteria x where x.rubric_version_id = m.rubric_version_id) * a.points / a.point_step + 0.5) * a.point_step as points, m.returned ->> 'points' as shown
      from marks m join activities a on a.id = m.activity_id join criterion_marks cm on cm.mark_id = m.id join rubric_criteria rc on rc.id = cm.criterion_id
      where m.returned is not null and m.override_points is null group by m.id, a.id`)
    expect(rows.length).toBeGreaterThan(3)
    for (const r of rows) expect(Number(r.shown)).toBe(Number(r.points))
    const liv = await world.as('liv')
    const { body: letter } = await liv.json<LetterView>(
      'GET',
      `/api/activities/${world.breakwater.id}/letter`,
    )
    const mine = await own('liv')
    const i = mine.columns.findIndex(c => c.id === world.breakwater.id)
    expect(mine.row.points[i]).toBe(letter.points)
    const csv = parse(await (await ines.send('GET', path('/results?form=csv'))).text(), {
      bom: true,
      columns: true,
    }) as Array<Record<string, string>>
    expect(
      Number(csv.find(r => r.Mail === 'liv@northmere.example')![`${mine.columns[i]!.title} (of 25)`]),
    ).toBe(letter.points / 100)
  })

  it('sets points with a reason, undoes it, and overwrites nobody', async () => {
    expect((await set('liv', 1, 1500)).body.code).toBe('changedMeanwhile')
    const before = await cell('liv')
    expect((await set('liv', before.points!, 1500, '')).body.fields.reason).toContain('Say why')
    expect((await set('liv', before.points!, 2501)).body.fields.points).toContain('25 points to get')
    const done = await set('liv', before.points!, 1500)
    expect(await cell('liv', done.body)).toEqual({ points: 1500, state: 'h', counts: 'c' }) // what was returned goes on counting until the next return
    expect(
      (await own('liv')).row.points[(await own('liv')).columns.findIndex(c => c.id === world.breakwater.id)],
    ).toBe(before.points)
    await set('liv', 1500, null)
    expect(await cell('liv')).toMatchObject({ points: before.points })
  })

  it('never shows a student a held mark, by any of the new ways', async () => {
    const nico = await world.as('nico') // held
    const held = await ines.json<RecordView>('GET', await at('nico', ''))
    expect(held.body.mark.state).toBe('held')
    const mine = await own('nico')
    const i = mine.columns.findIndex(c => c.id === world.breakwater.id)
    expect([mine.row.points[i], mine.row.states[i], mine.row.set[i]]).toEqual([null, 'w', '0'])
    expect(JSON.stringify(mine)).not.toContain('"h"')
    expect(mine.grading.countHeld).toBe(false)
    expect((await nico.send('GET', `/api/activities/${world.breakwater.id}/letter/pdf`)).status).toBe(404)
    const csv = await (await ines.send('GET', path('/results?form=csv'))).text()
    const row = (parse(csv, { bom: true, columns: true }) as Array<Record<string, string>>).find(
      r => r.Mail === 'nico@northmere.example',
    )!
    expect(row['Who paid for the breakwater? (of 25)']).toBe('')
    const notices = await (await nico.send('GET', path('/notices'))).text()
    expect(notices).not.toContain('breakwater?” has come back')
    const zip = unzipSync(
      new Uint8Array(
        await (
          await ines.send('GET', path(`/results?form=zip&activity=${world.breakwater.id}`))
        ).arrayBuffer(),
      ),
    )
    expect(Object.keys(zip).some(n => n.includes('Corvo'))).toBe(false)
    expect(Object.keys(zip).some(n => n.includes('Brandt'))).toBe(true)
  })

  it('excuses with a reason: the item leaves the figure, and comes back', async () => {
    const before = (await own('liv')).row.share
    expect(
      (await ines.json<Refusal>('PUT', await at('liv', '/excused'), { key: v7(), excused: true, reason: '' }))
        .status,
    ).toBe(422)
    expect(
      (
        await cell(
          'liv',
          (
            await ines.json<GradeRow>('PUT', await at('liv', '/excused'), {
              key: v7(),
              excused: true,
              reason: 'Ill that week.',
            })
          ).body,
        )
      ).counts,
    ).toBe('x')
    expect((await own('liv')).row.share).not.toBe(before)
    await ines.json('PUT', await at('liv', '/excused'), { key: v7(), excused: false, reason: '' })
    expect((await own('liv')).row.share).toBe(before)
    const history = await (await ines.send('GET', await at('liv', '/history'))).text()
    expect(history).toContain('excused from the activity: Ill that week.')
  })

  it('stays sound at its edges: nothing to get, an empty category, everything dropped, no category', async () => {
    const [activity] = await world.db
      .select()
      .from(t.activities)
      .where(eq(t.activities.id, world.breakwater.id))
    await world.db
      .update(t.categories)
      .set({ dropLowest: 9 })
      .where(eq(t.categories.id, activity!.categoryId!))
    expect((await own('liv')).row.share).not.toBeNull() // one item always stays
    await world.db.update(t.activities).set({ points: 0 }).where(eq(t.activities.id, world.breakwater.id))
    expect((await cell('liv')).counts).toBe('0')
    expect((await set('liv', (await cell('liv')).points!, 100)).body.fields.points).toContain(
      'worth no points',
    )
    await world.db
      .update(t.activities)
      .set({ points: 2500, categoryId: null })
      .where(eq(t.activities.id, world.breakwater.id))
    expect((await cell('liv')).counts).toBe('u')
    await world.db
      .update(t.activities)
      .set({ categoryId: activity!.categoryId })
      .where(eq(t.activities.id, world.breakwater.id))
    await world.db
      .update(t.categories)
      .set({ dropLowest: 0 })
      .where(eq(t.categories.id, activity!.categoryId!))
  })

  it('takes marks in after showing what would change; rows that cannot be taken are named with line and reason', async () => {
    const base64 = (text: string) => Buffer.from(text, 'latin1').toString('base64')
    const file =
      'Student;Points\nliv@northmere.example;12,5\nNobody Known;9\nTeodora Quillane;=1+1\nEmrys Tal;99\nAnselm Moreau-Sato;\n'
    const body = { name: 'marks.csv', activityId: world.breakwater.id, base64: base64(file) }
    const withMail = { ...body, base64: base64(file.replace('Student', 'Mail')) }
    const { body: preview } = await ines.json<MarksPreview>('POST', path('/marks/preview'), withMail)
    expect(preview).toMatchObject({
      changes: [{ line: 2, name: 'Liv Brandt', to: 1250 }],
      empty: 1,
      faults: [
        { line: 3, fault: 'nobody here goes by this' },
        { line: 4, fault: 'this is no number of points' },
        { line: 5, fault: 'outside what there is to get' },
      ],
    })
    expect((await cell('liv')).points).not.toBe(1250) // looking changes nothing
    expect(
      (await ines.json<Refusal>('POST', path('/marks'), { ...withMail, key: v7(), reason: '' })).body.fields
        .reason,
    ).toBeDefined()
    const key = v7()
    for (let i = 0; i < 2; i++)
      expect(
        (
          await ines.json<{ changed: number }>('POST', path('/marks'), {
            ...withMail,
            key,
            reason: 'From the oral.',
          })
        ).body.changed,
      ).toBe(1)
    expect(await cell('liv')).toMatchObject({ points: 1250, state: 'h' })
    expect(
      (await ines.json<Refusal>('POST', path('/marks/preview'), { ...body, base64: base64('a,b\n1,2\n') }))
        .body.fields.file,
    ).toContain('The first line must name the columns')
  })

  it('hands results out safely: no cell a spreadsheet would run, OneRoster that adds up, XLSX and PDF that open', async () => {
    const [person] = await world.db
      .select()
      .from(t.persons)
      .where(eq(t.persons.email, 'rasmus@northmere.example'))
    await world.db
      .update(t.persons)
      .set({ familyName: '=HYPERLINK("x")', name: '=HYPERLINK("x")' })
      .where(eq(t.persons.id, person!.id))
    const csv = await (await ines.send('GET', path('/results?form=csv'))).text()
    expect(csv).toContain(`"'=HYPERLINK(""x"")"`)
    const files = unzipSync(
      new Uint8Array(await (await ines.send('GET', path('/results?form=oneroster'))).arrayBuffer()),
    )
    const read = (name: string) =>
      parse(strFromU8(files[name]!), { columns: true }) as Array<Record<string, string>>
    const items = new Map(read('lineItems.csv').map(i => [i.sourcedId, i]))
    const results = read('results.csv')
    expect(results.length).toBeGreaterThan(2)
    for (const r of results)
      expect(Number(r.score)).toBeLessThanOrEqual(Number(items.get(r.lineItemSourcedId!)!.resultValueMax))
    const xlsx = unzipSync(
      new Uint8Array(await (await ines.send('GET', path('/results?form=xlsx'))).arrayBuffer()),
    )
    expect(strFromU8(xlsx['xl/worksheets/sheet1.xml']!)).not.toContain('<f>')
    const pdf = Buffer.from(
      await (
        await (await world.as('liv')).send('GET', `/api/activities/${world.breakwater.id}/letter/pdf`)
      ).arrayBuffer(),
    ).toString('latin1')
    expect(pdf.startsWith('%PDF-1.7')).toBe(true)
    for (const part of ['/MarkInfo', '/StructTreeRoot', '/Lang (en-GB)']) expect(pdf).toContain(part)
  })

  it('spreads marks by points and criterion and keeps a second marker blind', async () => {
    const { body } = await ines.json<Distribution>(
      'GET',
      `/api/activities/${world.breakwater.id}/distribution`,
    )
    expect(body.bins.reduce((n, b) => n + b.n, 0)).toBe(body.marked)
    const [stored] = await world.db.execute<{ n: number; mean: number }>(
      sql`select count(*)::int as n, avg(points)::float as mean from marks where activity_id = ${world.breakwater.id} and points is not null`,
    )
    expect(body.marked).toBe(stored!.n)
    expect(body.mean).toBeCloseTo(stored!.mean, 6)
    expect(body.criteria.map(c => c.title)).toEqual(rubric.criteria.map(c => c.title))
    const henrik = await world.as('henrik')
    const me = (
      await henrik.json<{ markers: Array<{ id: string; isMe: boolean }> }>('GET', path('/marking'))
    ).body.markers.find(m => m.isMe)!.id
    await ines.json('POST', `/api/activities/${world.breakwater.id}/second`, {
      key: v7(),
      enrolmentIds: [(await world.enrolment('nico')).id],
      markerId: me,
    })
    const blind = (await henrik.json<Gradebook>('GET', path('/gradebook'))).body
    const i = blind.columns.findIndex(c => c.id === world.breakwater.id)
    const nico = (await world.enrolment('nico')).id
    expect(blind.rows.find(r => r.enrolmentId === nico)!.points[i]).toBeNull()
    await ines.json('POST', `/api/activities/${world.breakwater.id}/second`, {
      key: v7(),
      enrolmentIds: [(await world.enrolment('rasmus')).id],
      markerId: me,
    })
    const names = Object.keys(
      unzipSync(
        new Uint8Array(
          await (
            await henrik.send('GET', path(`/results?form=zip&activity=${world.breakwater.id}`))
          ).arrayBuffer(),
        ),
      ),
    )
    expect(names.some(n => n.includes('Brandt'))).toBe(true)
    expect(names.some(n => /Rasmus|HYPERLINK/.test(n))).toBe(false)
    expect(
      (await henrik.json<Distribution>('GET', `/api/activities/${world.breakwater.id}/distribution`)).body
        .marked,
    ).toBe(stored!.n - 2)
  })

  it('keeps each reader’s own columns', async () => {
    const ids = (await book()).columns.map(c => c.id).reverse()
    await ines.json('PUT', path('/gradebook/layout'), { order: ids, hidden: ids.slice(0, 1) })
    expect(await book()).toMatchObject({ order: ids, hidden: ids.slice(0, 1) })
    expect((await (await world.as('henrik')).json<Gradebook>('GET', path('/gradebook'))).body.order).toEqual(
      [],
    )
  })

  it('saves a mark whole or not at all when two hands save at once', async () => {
    const path = await at('kadri', '/mark')
    const write = (n: number) =>
      ines.json<MarkView & Refusal>('PUT', path, {
        key: v7(),
        baseVersion: 0,
        steps: [],
        citations: [],
        letter: doc(`Hand ${n}`),
        markerNote: `note ${n}`,
        lateWaived: false,
      })
    const answers = await Promise.all([1, 2, 3, 4].map(write))
    expect(answers.filter(a => a.status === 200)).toHaveLength(1)
    for (const a of answers.filter(x => x.status !== 200)) expect(a.body.code).toBe('changedMeanwhile')
    const won = answers.findIndex(a => a.status === 200) + 1
    const { body } = await ines.json<RecordView>('GET', await at('kadri', ''))
    expect(JSON.stringify(body.mark.letter)).toContain(`Hand ${won}`)
    expect(body.mark.markerNote).toBe(`note ${won}`)
  })

  it('gives back exactly what SQL makes of steps and weights of chance', async () => {
    const next = seededRandom(23)
    for (const c of rubric.criteria)
      await world.db
        .update(t.rubricCriteria)
        .set({ weight: 1 + Math.floor(next() * 5) })
        .where(eq(t.rubricCriteria.id, c.id))
    const students = (await book()).rows.map(r => r.enrolmentId)
    for (const id of students) {
      const path = `/api/activities/${world.breakwater.id}/records/${id}`
      const { body: record } = await ines.json<RecordView>('GET', path)
      const steps = record.rubric!.criteria.map(c => {
        const level = c.levels[Math.floor(next() * c.levels.length)]!
        return { criterionId: c.id, levelId: level.id }
      })
      const saved = await ines.json<MarkView>('PUT', `${path}/mark`, {
        key: v7(),
        baseVersion: record.mark.version,
        steps,
        citations: [],
        letter: doc('Dear'),
        markerNote: '',
        lateWaived: true,
      })
      expect(
        (await ines.json('POST', `${path}/return`, { key: v7(), baseVersion: saved.body.version })).status,
      ).toBe(200)
    }
    const rows = await world.db.execute<{ enrolment_id: string; points: string; shown: string }>(sql`
      select m.enrolment_id, floor(sum(rc.weight * cm.points)::numeric / (select sum(weight * max) from rubric_criteria x where x.rubric_version_id = m.rubric_version_id) * a.points / a.point_step + 0.5) * a.point_step as points, m.returned ->> 'points' as shown
      from marks m join activities a on a.id = m.activity_id join criterion_marks cm on cm.mark_id = m.id join rubric_criteria rc on rc.id = cm.criterion_id
      where m.activity_id = ${world.breakwater.id} group by m.id, a.id`)
    expect(rows).toHaveLength(students.length)
    for (const r of rows) expect(Number(r.shown)).toBe(Number(r.points))
    expect(new Set(rows.map(r => r.shown)).size).toBeGreaterThan(8) // they do differ
    const b = await book()
    const i = b.columns.findIndex(c => c.id === world.breakwater.id)
    for (const r of rows)
      expect(b.rows.find(x => x.enrolmentId === r.enrolment_id)!.points[i]).toBe(Number(r.points))
  })
})
