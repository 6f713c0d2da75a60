import { parse } from 'csv-parse/sync'
import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import { gradeOf, percentOf } from '#core/marking/gradebook/gradebook'
import * as t from '#server/database/schema'
import { atTheDesk, type Desk } from '#server/testing/marker'
import type { Client } from '#server/testing/server'
import { doc, testWorld, type World } from '#server/testing/world'
import { CELL_COUNTS, CELL_STATES, type Gradebook, type OwnGrades } from '#shared/marking/gradebook'
import { calculatedFrom, categoriesOf, countedOf, stateOf } from '#shared/marking/readGradeRow'

const SEQUENCES = 12
const ACTS = 7
const WHO = 'malin'

/** What is marked, held, returned, changed, taken back, dropped and excused, in any order. */
describe('the views of a mark', () => {
  let world: World
  let malin: Client
  let malinId: string
  let { ines, steps, mark, act, at, record } = {} as Desk
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ;({ ines, steps, mark, act, at, record } = await atTheDesk(world))
    malin = await world.as(WHO)
    malinId = (await world.enrolment(WHO)).id
  })
  afterAll(() => world.close())

  const path = (rest: string) => `/api/seminars/${world.seminar.id}${rest}`

  /** Everything there is to be seen of one student's figures. */
  async function views() {
    const [{ body: book }, { body: own }, csv] = await Promise.all([
      ines.json<Gradebook>('GET', path('/gradebook')),
      malin.json<OwnGrades>('GET', path('/grades')),
      ines.send('GET', path('/results?form=csv')).then(r => r.text()),
    ])
    const rows = parse(csv, { bom: true, columns: true }) as Array<Record<string, string>>
    return {
      book,
      row: book.rows.find(r => r.enrolmentId === malinId)!,
      own,
      csv: rows.find(r => r.Mail!.startsWith(`${WHO}@`))!,
    }
  }

  async function expectOneAnswer(after: readonly string[]) {
    const { book, row, own, csv } = await views()
    const said = after.join(', ')
    // the panel makes the same of the row as the grid shows
    const { items, entries } = calculatedFrom(book, row)
    const panel = gradeOf(items, entries, categoriesOf(book), book.grading)
    expect(panel.share, said).toBe(row.share)
    expect(
      panel.categories.map(c => c.share),
      said,
    ).toEqual(row.shares)
    for (const part of [...panel.categories.flatMap(c => c.parts), ...panel.outside]) {
      const i = book.columns.findIndex(c => c.id === part.itemId)
      expect(part.counted, `${said}: ${book.columns[i]!.title}`).toBe(countedOf(row, i))
    }
    // the final figure is the weighted mean of the categories that have anything
    const filled = book.categories
      .map((c, i) => [c.weight, row.shares[i]] as const)
      .filter(([, s]) => s !== null)
    const weights = filled.reduce((sum, [weight]) => sum + weight, 0)
    if (weights > 0)
      expect(row.share!, said).toBeCloseTo(filled.reduce((s, [w, share]) => s + w * share!, 0) / weights, 12)
    // the file has what the grid has, but for what was not returned
    expect(csv['Final (%)'], said).toBe(row.share === null ? '' : String(percentOf(row.share)))
    for (const [i, c] of book.columns.entries()) {
      const cell = csv[`${c.title} (of ${c.max / 100})`]
      const counted = countedOf(row, i)
      const expected = () => {
        if (stateOf(row, i) === 'returned') return String(row.points[i]! / 100)
        if (counted === 'excused') return 'excused'
        return counted === 'missing' || counted === 'droppedMissing' ? '0' : ''
      }
      expect(cell, `${said}: ${c.title}`).toBe(expected())
    }
    // the student has the same figures from what was returned to them, and nothing of what was not
    const known = calculatedFrom(own, own.row)
    const made = gradeOf(known.items, known.entries, categoriesOf(own), own.grading)
    if (own.grading.showTotal) expect(made.share, said).toBe(own.row.share)
    for (const [i, c] of own.columns.entries()) {
      const n = book.columns.findIndex(x => x.id === c.id)
      const isReturned = row.states[n] === CELL_STATES.returned
      expect(own.row.points[i] ?? null, `${said}: ${c.title}`).toBe(isReturned ? row.points[n] : null)
      const excused = [own.row.counts[i], row.counts[n]].map(x => x === CELL_COUNTS.excused)
      expect(excused[0], said).toBe(excused[1])
    }
    if (!book.grading.countHeld) expect(own.row.share, said).toBe(row.share)
  }

  const deeds: Readonly<Record<string, (random: () => number) => Promise<unknown>>> = {
    mark: random =>
      mark(ines, WHO, {
        steps: steps(...Array.from({ length: 4 }, () => Math.floor(random() * 3))),
        letter: doc('Dear Malin, well read.'),
      }),
    markPartly: random => mark(ines, WHO, { steps: steps(Math.floor(random() * 3)) }),
    hold: () => act('hold', WHO),
    return: () => act('return', WHO),
    takeBack: () => act('take-back', WHO),
    reopen: () => act('reopen', WHO),
    setPoints: async random => {
      const { book, row } = await views()
      const i = book.columns.findIndex(c => c.id === world.breakwater.id)
      const was = row.changes.find(c => c.column === i)?.points ?? row.points[i] ?? null
      const points = random() < 0.3 ? null : 50 * Math.floor(random() * 50)
      return ines.json('PUT', await at(WHO, '/points'), { key: v7(), was, points, reason: 'Counted again.' })
    },
    excuse: async random =>
      ines.json('PUT', await at(WHO, '/excused'), {
        ...{ key: v7(), excused: random() < 0.6, reason: 'Ill that week.' },
      }),
    drop: random =>
      world.db
        .update(t.categories)
        .set({ dropLowest: Math.floor(random() * 3) })
        .where(eq(t.categories.seminarId, world.seminar.id)),
    countHeld: random =>
      world.db
        .update(t.seminars)
        .set({
          grading: { ...world.seminar.grading, countHeld: random() < 0.5, missingIsZero: random() < 0.7 },
        })
        .where(eq(t.seminars.id, world.seminar.id)),
    joinLate: random =>
      world.db
        .update(t.enrolments)
        .set({ joinedAt: new Date(random() < 0.5 ? '2026-08-31T08:00:00Z' : '2026-10-10T08:00:00Z') })
        .where(eq(t.enrolments.id, malinId)),
  }

  it.each(Array.from({ length: SEQUENCES }, (_, i) => i))(
    'agree after any sequence of acts (%i)',
    async n => {
      const random = seededRandom(4400 + n)
      const names = Object.keys(deeds)
      const done: string[] = []
      for (let i = 0; i < ACTS; i++) {
        const name = names[Math.floor(random() * names.length)]!
        await deeds[name]!(random)
        done.push(name)
        await expectOneAnswer(done)
      }
      expect((await record(WHO)).mark.version).toBeGreaterThanOrEqual(0)
    },
  )
})
