import { rowsOf } from '#server/database/client'
import { strFromU8, unzipSync } from 'fflate'
import { parse } from 'csv-parse/sync'
import { v7 } from 'uuid'
import { eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { doc, testWorld, type World } from '#server/testing/world'
import type { ActivityView } from '#shared/contributing/activity'
import type { MarkView, RecordView } from '#shared/marking/desk'
import type { Distribution, Gradebook, GradeRow, MarksPreview, OwnGrades } from '#shared/marking/gradebook'
import type { LetterView } from '#shared/marking/letter'

interface Refusal {
  readonly code: string
  readonly detail: string
  readonly fields: Record<string, string>
}

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
    const change = r.changes.find(c => c.column === i)?.points ?? null
    return { points: r.points[i], state: r.states[i], counts: r.counts[i], change }
  }
  const set = async (who: string, was: number | null, points: number | null, reason = 'Counted again.') =>
    ines.json<GradeRow & Refusal>('PUT', await at(who, '/points'), { key: v7(), was, points, reason })

  it('shows every student exactly what SQL makes of the stored steps, in letters, gradebook and files', async () => {
    // returned marks of the demo: Σ weight·points / Σ weight·max of the steps, times the points, rounded
    // half up to half points; none of them was late
    const rows = await rowsOf<{ enrolment_id: string; points: string; shown: string }>(
      world.db,
      sql`
      select m.enrolment_id,
        floor(sum(rc.weight * cm.points)::numeric / (select sum(weight * max) from rubric_criteria x
        where x.rubric_version_id = m.rubric_version_id) * a.points / a.point_step + 0.5) * a.point_step as points,
        m.returned ->> 'points' as shown
      from marks m join activities a on a.id = m.activity_id join criterion_marks cm on cm.mark_id = m.id join rubric_criteria rc on rc.id = cm.criterion_id
      where m.returned is not null and m.override_points is null group by m.id, a.id`,
    )
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
    expect(await cell('liv', done.body)).toEqual({ ...before, change: 1500 }) // what was returned goes on counting until the next return
    expect(
      (await own('liv')).row.points[(await own('liv')).columns.findIndex(c => c.id === world.breakwater.id)],
    ).toBe(before.points)
    await set('liv', 1500, null)
    expect(await cell('liv')).toEqual({ ...before, change: before.points })
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
    expect(await cell('liv')).toMatchObject({ state: 'r', change: 1250 })
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
      .update(t.enrolments)
      .set({ familyName: '=HYPERLINK("x")', name: '=HYPERLINK("x")' })
      .where(eq(t.enrolments.personId, person!.id))
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
    const [stored] = await rowsOf<{ n: number; mean: number }>(
      world.db,
      sql`select count(*)::int as n, avg(points)::float as mean from marks
        where activity_id = ${world.breakwater.id} and points is not null`,
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
    const rows = await rowsOf<{ enrolment_id: string; points: string; shown: string }>(
      world.db,
      sql`
      select m.enrolment_id,
        floor(sum(rc.weight * cm.points)::numeric / (select sum(weight * max) from rubric_criteria x
        where x.rubric_version_id = m.rubric_version_id) * a.points / a.point_step + 0.5) * a.point_step as points,
        m.returned ->> 'points' as shown
      from marks m join activities a on a.id = m.activity_id join criterion_marks cm on cm.mark_id = m.id join rubric_criteria rc on rc.id = cm.criterion_id
      where m.activity_id = ${world.breakwater.id} group by m.id, a.id`,
    )
    expect(rows).toHaveLength(students.length)
    for (const r of rows) expect(Number(r.shown)).toBe(Number(r.points))
    expect(new Set(rows.map(r => r.shown)).size).toBeGreaterThan(8) // they do differ
    const b = await book()
    const i = b.columns.findIndex(c => c.id === world.breakwater.id)
    for (const r of rows)
      expect(b.rows.find(x => x.enrolmentId === r.enrolment_id)!.points[i]).toBe(Number(r.points))
  })
})
