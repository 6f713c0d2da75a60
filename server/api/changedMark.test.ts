import { parse } from 'csv-parse/sync'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { atTheDesk, type Desk } from '#server/testing/marker'
import type { Client } from '#server/testing/server'
import { doc, testWorld, type World } from '#server/testing/world'
import type { ActivityView } from '#shared/contributing/activity'
import type { DeskView } from '#shared/marking/desk'
import type { Gradebook, OwnGrades } from '#shared/marking/gradebook'
import type { OutcomesView } from '#shared/marking/outcomes'
import type { LetterView } from '#shared/marking/letter'

describe('a mark that is changed after it was held or returned', () => {
  let world: World
  let oona: Client
  let { ines, henrik, steps, mark, act, at, record } = {} as Desk
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ;({ ines, henrik, steps, mark, act, at, record } = await atTheDesk(world))
    oona = await world.as('oona')
  })
  afterAll(() => world.close())

  const deskOf = async (student: string, as = ines) => {
    const { id } = await world.enrolment(student)
    const desk = (await as.json<DeskView>('GET', `/api/activities/${world.breakwater.id}/desk`)).body
    return desk.students.find(s => s.id === id)!
  }
  async function cell(student: string) {
    const { id } = await world.enrolment(student)
    const book = (await ines.json<Gradebook>('GET', `/api/seminars/${world.seminar.id}/gradebook`)).body
    const column = book.columns.findIndex(c => c.id === world.breakwater.id)
    const row = book.rows.find(r => r.enrolmentId === id)!
    return {
      points: row.points[column],
      state: row.states[column],
      counts: row.counts[column],
      share: row.share,
      change: row.changes.find(c => c.column === column) ?? null,
    }
  }
  const inCsv = async (student: string) => {
    const csv = await (await ines.send('GET', `/api/seminars/${world.seminar.id}/results?form=csv`)).text()
    const rows = parse(csv, { bom: true, columns: true }) as Array<Record<string, string>>
    const row = rows.find(r => r.Mail!.startsWith(`${student}@`))!
    return row[Object.keys(row).find(k => k.startsWith(world.breakwater.title))!]
  }
  const own = async () => {
    const grades = (await oona.json<OwnGrades>('GET', `/api/seminars/${world.seminar.id}/grades`)).body
    const column = grades.columns.findIndex(c => c.id === world.breakwater.id)
    const activity = (await oona.json<ActivityView>('GET', `/api/activities/${world.breakwater.id}`)).body
    const letter = await oona.json<LetterView>('GET', `/api/activities/${world.breakwater.id}/letter`)
    return {
      points: grades.row.points[column],
      changes: grades.row.changes,
      share: grades.row.share,
      standing: activity.standing,
      letter: letter.status === 200 ? letter.body.points : letter.status,
    }
  }

  const outcomes = async () => {
    const view = await ines.json<OutcomesView>('GET', `/api/seminars/${world.seminar.id}/outcomes`)
    expect(view.body.outcomes.reduce((n, o) => n + o.judged, 0)).toBeGreaterThan(0)
    return view.body
  }

  it('goes back to the desk when a held mark loses a step, and is held as long as it is whole', async () => {
    await mark(ines, 'malin', { steps: steps(3, 2, 2, 2) })
    await act('hold', 'malin')
    const other = await mark(ines, 'malin', { steps: steps(2, 2, 2, 2) })
    expect(other.body).toMatchObject({ state: 'held', criteriaLeft: 0 })
    const less = await mark(ines, 'malin', { steps: steps(2, 2, 2) })
    expect(less.body).toMatchObject({ state: 'open', criteriaLeft: 1 })
    expect((await record('malin')).mark).toMatchObject({ state: 'open', criteriaLeft: 1 })
    expect((await deskOf('malin')).held).toBeNull()
    expect((await deskOf('malin')).judged.toSorted()).toEqual(
      steps(2, 2, 2)
        .map(s => s.criterionId)
        .toSorted(),
    )
  })

  it('stands everywhere as it was returned, while staff see what it would be', async () => {
    await mark(ines, 'oona', { steps: steps(3, 2, 2, 2), letter: doc('Dear Oona, well read.') })
    await act('return', 'oona')
    const [before, ownBefore, outcomesBefore] = [await cell('oona'), await own(), await outcomes()]
    expect(before).toMatchObject({ points: 2100, state: 'r', counts: 'c', change: null })
    expect(ownBefore).toMatchObject({ points: 2100, standing: 'returned', letter: 2100 })

    await mark(ines, 'oona', { steps: steps(2, 2, 2, 2), letter: doc('Dear Oona, a second thought.') })
    const { points } = (await record('oona')).mark
    expect(points).toBeLessThan(2100)
    expect(await cell('oona')).toEqual({ ...before, change: { column: expect.any(Number), points } })
    expect(await inCsv('oona')).toBe('21')
    expect(await own()).toEqual(ownBefore)
    expect(await outcomes()).toEqual(outcomesBefore)
    expect((await deskOf('oona')).held).toMatchObject({ points, returned: 2100, hasLetter: true })

    // without a step it would be nothing yet; to everybody else nothing has changed
    await mark(ines, 'oona', { steps: steps(2) })
    expect(await cell('oona')).toMatchObject({ points: 2100, state: 'r', change: { points: null } })
    expect(await own()).toEqual(ownBefore)
    expect(await outcomes()).toEqual(outcomesBefore)

    // and once it is returned anew, it is that
    await mark(ines, 'oona', { steps: steps(0, 0, 0, 0) })
    await act('return', 'oona')
    expect(await outcomes()).not.toEqual(outcomesBefore)
    await mark(ines, 'oona', { steps: steps(3, 2, 2, 2) })
    await act('return', 'oona')
    expect(await outcomes()).toEqual(outcomesBefore)
  })

  it('counts as returned, too, where figures count held marks', async () => {
    await mark(ines, 'oona', { steps: steps(0, 0, 0, 0) })
    const before = await cell('oona')
    const grading = { ...world.seminar.grading, countHeld: true }
    await world.db.update(t.seminars).set({ grading }).where(eq(t.seminars.id, world.seminar.id))
    expect(await cell('oona')).toEqual(before)
    await mark(ines, 'malin', { steps: steps(2, 2, 2, 2) })
    const [open] = [await cell('malin')]
    await act('hold', 'malin')
    expect([open.counts, (await cell('malin')).counts]).toEqual(['n', 'c'])
  })

  it('is looked at, before it is returned, with what goes out: points, letter, lateness, set by hand', async () => {
    await mark(ines, 'solongo', {
      steps: steps(3, 2, 2, 2),
      letter: doc(''),
      override: { points: 1500, reason: 'agreed' },
    })
    await act('hold', 'solongo')
    expect((await deskOf('solongo')).held).toEqual({
      points: 1500,
      returned: null,
      hasLetter: false,
      lateMinutes: expect.any(Number),
      lateWaived: false,
      setByHand: true,
      returnAt: null,
    })
  })

  it('shows two markers who have one record open, and nobody who has another', async () => {
    const here = async (as: Client, student: string) =>
      (await as.json<{ others: Array<{ name: string }> }>('POST', await at(student, '/here'))).body.others
    expect(await here(ines, 'malin')).toEqual([])
    expect(await here(henrik, 'malin')).toEqual([{ name: 'Ines Okafor-Lind' }])
    const [both] = await here(ines, 'malin')
    expect(both!.name).toContain('Henrik')
    expect(await here(henrik, 'solongo')).toEqual([])
    expect(await here(ines, 'malin')).toEqual([])
  })
})
