import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, expect, it, describe } from 'vitest'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { PeopleView, RosterAnswer } from '#shared/people/people'

const PEOPLE = 130 // more than one statement takes
const HEAD = 'given name,family name,e-mail,student number,section,role'

interface Line {
  readonly given: string
  readonly family: string
  readonly mail: string
  readonly number: string
  readonly section: string
  readonly role: string
}

/** People of a file; each third one is changed in one way, each fifth in several at once. */
const first = Array.from({ length: PEOPLE }, (_, i): Line => ({
  given: `Given${i}`,
  family: `Family${i}`,
  mail: `rope${i}@ropes.example`,
  number: `R${i}`,
  section: i % 2 ? 'Quay' : 'Pier',
  role: 'student',
}))
const second = first.map((line, i): Line => ({
  ...line,
  ...(i % 3 === 0 && { given: `New${i}` }),
  ...(i % 5 === 0 && { section: 'Tower', mail: `changed${i}@ropes.example` }),
  ...(i % 7 === 0 && { role: 'observer' }),
}))
const csvOf = (lines: readonly Line[]) =>
  [HEAD, ...lines.map(l => [l.given, l.family, l.mail, l.number, l.section, l.role].join(','))].join('\n')

describe('many changes of one roster', () => {
  let world: World
  let ines: Client
  let base: string
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
    base = `/api/seminars/${world.seminar.id}`
  })
  afterAll(() => world.close())

  const take = (lines: readonly Line[], withdrawMissing = false) =>
    ines.json<RosterAnswer & { detail?: string }>('POST', `${base}/roster`, {
      key: v7(),
      name: 'ropes.csv',
      base64: Buffer.from(csvOf(lines)).toString('base64'),
      withdrawMissing,
      invite: false,
    })
  /** Those of the file as the seminar has them, in the file's order. */
  async function there(): Promise<Array<Line & { readonly state: string }>> {
    const { sections, people } = (await ines.json<PeopleView>('GET', `${base}/people`)).body
    const rows = await world.db.select().from(t.enrolments)
    const titles = new Map(sections.map(s => [s.id, s.title]))
    const mails = new Map(people.map(p => [p.id, p.email]))
    return rows
      .filter(e => /^R\d+$/.test(e.studentNumber ?? '') && e.seminarId === world.seminar.id)
      .sort((a, b) => Number(a.studentNumber!.slice(1)) - Number(b.studentNumber!.slice(1)))
      .map(e => ({
        given: e.givenName,
        family: e.familyName,
        mail: mails.get(e.id)!,
        number: e.studentNumber!,
        section: titles.get(e.sectionId ?? '') ?? '',
        role: e.role,
        state: e.state,
      }))
  }

  it('are each made of the person they are about, and of nobody else', async () => {
    expect((await take(first)).body).toMatchObject({ added: PEOPLE })
    expect(await there()).toEqual(first.map(l => ({ ...l, state: 'active' })))
    const changed = second.filter((l, i) => l !== first[i] && JSON.stringify(l) !== JSON.stringify(first[i]))
    expect((await take(second)).body).toMatchObject({ added: 0, changed: changed.length })
    expect(await there()).toEqual(second.map(l => ({ ...l, state: 'active' })))
  })

  it('withdraw who is missing, let them in again, and change nothing where one line cannot be done', async () => {
    const some = second.slice(0, 60)
    const gone = second.slice(60).filter(l => l.role === 'student').length
    const left = (await take(some, true)).body
    expect(left.withdrawn).toBeGreaterThanOrEqual(gone)
    expect((await there()).slice(60).every(l => l.role !== 'student' || l.state === 'withdrawn')).toBe(true)
    expect((await take(second)).body).toMatchObject({ added: 0, back: gone })
    expect(await there()).toEqual(second.map(l => ({ ...l, state: 'active' })))

    await world.db.insert(t.persons).values({
      email: 'taken@ropes.example',
      name: 'Tam Taken',
      givenName: 'Tam',
      familyName: 'Taken',
    })
    const before = await there()
    const refused = second.map((l, i) => {
      if (i === 3) return { ...l, given: 'Renamed' }
      return i === 100 ? { ...l, mail: 'taken@ropes.example' } : l
    })
    const answer = await ines.send('POST', `${base}/roster`, {
      key: v7(),
      name: 'ropes.csv',
      base64: Buffer.from(csvOf(refused)).toString('base64'),
      withdrawMissing: false,
      invite: false,
    })
    expect(await answer.text()).toContain(
      'Line 102: the address taken@ropes.example belongs to another account. Nothing was changed.',
    )
    expect(await there()).toEqual(before)
    expect(await world.db.$count(t.persons, eq(t.persons.email, 'taken@ropes.example'))).toBe(1)
  })
})
