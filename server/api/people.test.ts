import { and, eq, sql, like } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { namesOf } from '#server/services/people/nameView'
import { testDatabase } from '#server/testing/database'
import { Client, SETUP_CODE, testServer } from '#server/testing/server'
import { until } from '#server/testing/until'
import { testWorld, type World } from '#server/testing/world'
import type { PeopleView, RosterAnswer, RosterPreview } from '#shared/people/people'
import type { Mailroom } from '#shared/messaging/notices'

const base64 = (text: string) => Buffer.from(text).toString('base64')
const key = () => v7()

describe('an empty installation', () => {
  let database: Awaited<ReturnType<typeof testDatabase>>
  let server: Awaited<ReturnType<typeof testServer>>
  const account = (email: string) => ({
    givenName: 'Inga',
    familyName: 'Founder',
    email,
    password: 'a long password',
    code: SETUP_CODE,
  })
  beforeAll(async () => {
    database = await testDatabase({ empty: true })
    server = await testServer(database.url, { JOVREL_DEMO: '' })
  })
  afterAll(async () => {
    await server.stop()
    await database.drop()
  })

  it('gets one first account, however many ask for it at once; then a seminar, 500 people and a way in', async () => {
    const nobody = new Client(server.address)
    expect((await nobody.json<{ empty: boolean }>('GET', '/api/installation')).body.empty).toBe(true)
    const asked = await Promise.all(
      ['one', 'two', 'three'].map(n => nobody.send('POST', '/api/account', account(`${n}@x.example`))),
    )
    expect(asked.map(a => a.status).sort()).toEqual([200, 409, 409])
    const [owner] = await database.db.select().from(t.persons)
    const inga = await new Client(server.address).signIn(owner!.email, 'a long password')

    const id = key()
    const seminar = {
      id,
      code: 'N 1',
      title: 'Nets',
      college: '',
      timeZone: 'Europe/Amsterdam',
      firstDay: '2026-09-07',
      weeks: 13,
      breaks: [{ week: 8, title: 'Reading week' }],
    }
    for (let i = 0; i < 2; i++) expect((await inga.send('POST', '/api/seminars', seminar)).status).toBe(200) // a lost answer, asked again
    expect(await database.db.$count(t.seminars)).toBe(1)
    expect(
      (await inga.send('POST', '/api/seminars', { ...seminar, id: key(), firstDay: '2026-09-08' })).status,
    ).toBe(422) // a Tuesday
    expect(
      (await inga.json<{ rubrics: unknown[] }>('GET', `/api/seminars/${id}/library`)).body.rubrics,
    ).toHaveLength(4)

    const roster = {
      name: 'r.csv',
      base64: base64(
        'name;email;section\n' +
          Array.from(
            { length: 500 },
            (_, i) => `Given${i} Family${i};p${i}@x.example;${i % 2 ? 'A' : 'B'}`,
          ).join('\n'),
      ),
    }
    const preview = (await inga.json<RosterPreview>('POST', `/api/seminars/${id}/roster/preview`, roster))
      .body
    expect([preview.added.length, preview.faults, preview.newSections]).toEqual([500, [], ['B', 'A']])
    expect(await database.db.$count(t.enrolments)).toBe(1) // looked at, nothing written
    const write = { ...roster, key: key(), withdrawMissing: false, invite: false }
    // the import says how far it is while it goes on, never backwards, up to the end
    const said = (await (await inga.send('POST', `/api/seminars/${id}/roster`, write)).text())
      .trim()
      .split('\n')
      .map(line => JSON.parse(line))
    const steps = said.filter(line => 'done' in line)
    expect(steps.length).toBeGreaterThanOrEqual(10)
    expect(steps.map(s => s.done)).toEqual(steps.map(s => s.done).sort((a, b) => a - b))
    expect(steps.at(-1)).toEqual({ done: 500, of: 500 })
    expect(said.at(-1)).toEqual({
      answer: { added: 500, changed: 0, back: 0, withdrawn: 0, placed: 0, passedOver: 0 },
    })
    expect((await inga.json<RosterAnswer>('POST', `/api/seminars/${id}/roster`, write)).body).toEqual({
      added: 500,
      changed: 0,
      back: 0,
      withdrawn: 0,
      placed: 0,
      passedOver: 0,
    })
    expect(await database.db.$count(t.enrolments)).toBe(501)
    expect(
      (await inga.json<RosterPreview>('POST', `/api/seminars/${id}/roster/preview`, roster)).body,
    ).toMatchObject({ added: [], changed: [], same: 500, missing: [] })

    const people = (await inga.json<PeopleView>('GET', `/api/seminars/${id}/people`)).body.people
    const first = people.find(p => p.email === 'p7@x.example')!
    await inga.send('POST', `/api/seminars/${id}/people/invite`, { key: key(), enrolmentIds: [first.id] })
    const mail = await until(
      'the invitation',
      async () => (await inga.json<Mailroom>('GET', '/api/mailroom')).body.messages[0],
    )
    expect(mail.to).toEqual(['p7@x.example'])
    const path = /\/password\/\S+/.exec(mail.text)![0]
    const guest = new Client(server.address)
    expect((await guest.send('POST', `/api${path}`, { password: 'mine and long' })).status).toBe(200)
    expect((await guest.send('POST', `/api${path}`, { password: 'somebody else' })).status).toBe(404) // once
    await new Client(server.address).signIn('p7@x.example', 'mine and long')
  })
})

describe('people of a seminar', () => {
  let world: World
  let ines: Client
  let base: string
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
    base = `/api/seminars/${world.seminar.id}`
  })
  afterAll(() => world.close())

  it('refuses a roster of which no row can be taken, with the line, and writes nothing', async () => {
    const before = await world.db.$count(t.enrolments)
    const file = {
      name: 'r.csv',
      base64: base64('name,email\n=cmd|x,formula@x.example\n,p@x.example\n'),
    }
    const preview = (await ines.json<RosterPreview>('POST', `${base}/roster/preview`, file)).body
    expect(preview.faults.map(f => [f.line, f.code])).toEqual([
      [2, 'formula'],
      [3, 'noName'],
    ])
    for (const f of preview.faults) expect(f.sentence).toMatch(/[.]$/)
    expect(
      (
        await ines.send('POST', `${base}/roster`, {
          ...file,
          key: key(),
          withdrawMissing: false,
          invite: false,
        })
      ).status,
    ).toBe(422)
    expect(await world.db.$count(t.enrolments)).toBe(before)
  })

  it('looks through a roster of three megabytes, names its bad rows, and refuses one that is larger than may be', async () => {
    const line = (i: number) =>
      `"Given${'x'.repeat(90)} Family${i}",${i % 5000 === 7 ? 'no address' : `big${i}@x.example`},S${i % 20}`
    const csv = ['name,email,section', ...Array.from({ length: 20_000 }, (_, i) => line(i))].join('\n')
    expect(csv.length).toBeGreaterThan(2_500_000)
    const { status, body } = await ines.json<RosterPreview>('POST', `${base}/roster/preview`, {
      name: 'big.csv',
      base64: base64(csv),
    })
    expect([status, body.added.length, body.faults.map(f => f.line)]).toEqual([
      200,
      19_996,
      [9, 5009, 10_009, 15_009],
    ])
    expect(
      (await ines.send('POST', `${base}/roster/preview`, { name: 'huge.csv', base64: 'A'.repeat(8_300_000) }))
        .status,
    ).toBe(422)
    expect(
      (
        await ines.send('POST', `${base}/roster/preview`, {
          name: 'huger.csv',
          base64: 'A'.repeat(9_000_000),
        })
      ).status,
    ).toBe(413)
  })

  it('keeps a roster’s names for its own seminar: the account, other seminars and what one chose oneself stay', async () => {
    const roster = (csv: string) => ({ name: 'r.csv', base64: base64(csv) })
    const take = (csv: string) =>
      ines.json('POST', `${base}/roster`, {
        ...roster(csv),
        key: key(),
        withdrawMissing: false,
        invite: false,
      })
    const outside = await world.db.select().from(t.seminars).where(eq(t.seminars.code, 'XX 1'))
    const liv = await world.enrolment('liv')
    const known = namesOf(liv)
    await world.db.insert(t.enrolments).values({
      seminarId: outside[0]!.id,
      personId: liv.personId,
      ...known,
      role: 'student',
    })
    const called = async () => ({
      account: namesOf((await world.db.select().from(t.persons).where(eq(t.persons.id, liv.personId)))[0]!),
      here: namesOf(await world.enrolment('liv')),
      there: namesOf(
        (
          await world.db
            .select()
            .from(t.enrolments)
            .where(and(eq(t.enrolments.personId, liv.personId), eq(t.enrolments.seminarId, outside[0]!.id)))
        )[0]!,
      ),
    })
    expect(
      await take('name,email,student number\nLivia Brandt-Owner,liv@northmere.example,\n'),
    ).toMatchObject({
      status: 200,
      body: { changed: 1 },
    })
    const renamed = { name: 'Livia Brandt-Owner', givenName: 'Livia', familyName: 'Brandt-Owner' }
    expect(await called()).toEqual({ account: known, here: renamed, there: known })
    const { people } = (await ines.json<PeopleView>('GET', `${base}/people`)).body
    expect(people.find(p => p.id === liv.id)!.name).toBe('Livia Brandt-Owner')

    // what she calls herself goes everywhere, and no file changes it any more
    const client = await world.as('liv')
    const own = { name: 'Liv Halyard', givenName: 'Liv', familyName: 'Halyard' }
    const { name: _name, ...parts } = own
    expect((await client.send('PUT', '/api/account/name', parts)).status).toBe(200)
    expect(await called()).toEqual({ account: own, here: own, there: own })
    const again = 'name,email,student number\nSomebody Else,liv@northmere.example,\n'
    const preview = await ines.json<RosterPreview>('POST', `${base}/roster/preview`, roster(again))
    expect(preview.body).toMatchObject({ changed: [], faults: [], same: 1 })
    expect((await take(again)).status).toBe(200)
    expect(await called()).toEqual({ account: own, here: own, there: own })
    await client.send('PUT', '/api/account/name', {
      givenName: known.givenName,
      familyName: known.familyName,
    })
  })

  /** Those a test has added do not count in the next. */
  const withdraw = (personId: string) =>
    world.db.update(t.enrolments).set({ state: 'withdrawn' }).where(eq(t.enrolments.personId, personId))

  it('gives nobody another address by a file who is somebody elsewhere, and says so at the line', async () => {
    const other = await world.db
      .insert(t.seminars)
      .values({ ...world.seminar, id: key(), code: 'N 2', title: 'Elsewhere' })
      .returning()
    const victim = { email: 'victim@x.example', givenName: 'Vera', familyName: 'Victim', name: 'Vera Victim' }
    const [person] = await world.db.insert(t.persons).values(victim).returning()
    for (const seminarId of [world.seminar.id, other[0]!.id])
      await world.db.insert(t.enrolments).values({
        seminarId,
        personId: person!.id,
        ...namesOf(person!),
        role: 'student',
        studentNumber: 'V1',
      })
    const file = {
      name: 'r.csv',
      base64: base64('name,email,student number\nVera Victim,thief@x.example,V1\n'),
    }
    const preview = (await ines.json<RosterPreview>('POST', `${base}/roster/preview`, file)).body
    expect(preview.faults.map(f => [f.line, f.code])).toEqual([[2, 'elsewhere']])
    expect(preview.changed).toEqual([])
    const write = { ...file, key: key(), withdrawMissing: false, invite: true }
    expect((await ines.send('POST', `${base}/roster`, write)).status).toBe(422)
    const [now] = await world.db.select().from(t.persons).where(eq(t.persons.id, person!.id))
    expect(now).toMatchObject(victim)
    await withdraw(person!.id)
  })

  it('lets a link that went to an address open nothing once the address was another', async () => {
    const [person] = await world.db
      .insert(t.persons)
      .values({ email: 'wrong@x.example', givenName: 'Wim', familyName: 'Wrong', name: 'Wim Wrong' })
      .returning()
    await world.db.insert(t.enrolments).values({
      seminarId: world.seminar.id,
      personId: person!.id,
      ...namesOf(person!),
      role: 'student',
      studentNumber: 'W1',
    })
    await world.db
      .insert(t.passwordLinks)
      .values({ digest: 'open', personId: person!.id, expiresAt: new Date(Date.now() + 3_600_000) })
    const csv = 'name,email,student number\nWim Wrong,right@x.example,W1\n'
    const write = { key: key(), name: 'r.csv', base64: base64(csv), withdrawMissing: false, invite: false }
    const answer = await ines.json('POST', `${base}/roster`, write)
    expect(answer).toMatchObject({ status: 200, body: { changed: 1 } })
    const [now] = await world.db.select().from(t.persons).where(eq(t.persons.id, person!.id))
    expect(now!.email).toBe('right@x.example')
    expect(await world.db.$count(t.passwordLinks, eq(t.passwordLinks.personId, person!.id))).toBe(0)
    await withdraw(person!.id)
  })

  it('keeps the work of who is withdrawn, shuts them out, and lets them back in', async () => {
    const rasmus = await world.as('rasmus')
    const enrolment = await world.enrolment('rasmus')
    const written = await world.db.$count(t.contributions, eq(t.contributions.authorId, enrolment.id))
    expect((await ines.send('PATCH', `${base}/people/${enrolment.id}`, { state: 'withdrawn' })).status).toBe(
      200,
    )
    expect((await rasmus.send('GET', base)).status).toBe(404)
    // a code does not bring back who was withdrawn
    expect((await rasmus.send('POST', '/api/join/KELP-4QX', { account: null })).status).toBe(403)
    expect(await world.db.$count(t.contributions, eq(t.contributions.authorId, enrolment.id))).toBe(written)
    expect(
      (await ines.json<{ students: unknown[] }>('GET', `/api/activities/${world.breakwater.id}/desk`)).body
        .students,
    ).toHaveLength(23)
    await ines.send('PATCH', `${base}/people/${enrolment.id}`, { state: 'active' })
    expect((await rasmus.send('GET', base)).status).toBe(200)
    expect(
      (await ines.json<{ students: unknown[] }>('GET', `/api/activities/${world.breakwater.id}/desk`)).body
        .students,
    ).toHaveLength(24)
  })

  it('keeps one instructor at least', async () => {
    const own = await world.enrolment('ines')
    for (const change of [{ role: 'student' }, { state: 'withdrawn' }])
      expect((await ines.send('PATCH', `${base}/people/${own.id}`, change)).status).toBe(422)
  })

  it('lets as many in by a code as it may, also when they come at once, and none after its day or when it is taken back', async () => {
    await ines.send('POST', `${base}/codes`, {
      key: key(),
      role: 'student',
      sectionId: null,
      days: 1,
      most: 2,
    })
    const { codes } = (await ines.json<PeopleView>('GET', `${base}/people`)).body
    const code = codes[0]!
    const newcomer = (n: number) =>
      world.nobody.send('POST', `/api/join/${code.code}`, {
        account: {
          givenName: 'New',
          familyName: `Comer${n}`,
          email: `new${n}@x.example`,
          password: 'long enough',
        },
      })
    const statuses = (await Promise.all([1, 2, 3, 4].map(newcomer))).map(a => a.status)
    expect(statuses.filter(s => s === 200)).toHaveLength(2)
    expect(statuses.filter(s => s === 404)).toHaveLength(2)
    await world.db
      .update(t.joiningCodes)
      .set({ expiresAt: new Date('2026-10-14T08:19:00Z'), most: 99 })
      .where(eq(t.joiningCodes.id, code.id))
    expect((await newcomer(5)).status).toBe(404)
    await world.db
      .update(t.joiningCodes)
      .set({ expiresAt: new Date('2026-12-01T00:00:00Z') })
      .where(eq(t.joiningCodes.id, code.id))
    await ines.send('DELETE', `${base}/codes/${code.id}`)
    expect((await newcomer(6)).status).toBe(404)
    await world.db
      .update(t.enrolments)
      .set({ state: 'withdrawn' })
      .where(sql`${t.enrolments.personId} in (select id from persons where email like 'new%@x.example')`)
  })

  it('does not make a second account for an address, nor say whose it is', async () => {
    const answer = await world.nobody.send('POST', '/api/join/KELP-4QX', {
      account: {
        givenName: 'Not',
        familyName: 'Liv',
        email: 'liv@northmere.example',
        password: 'long enough',
      },
    })
    expect(answer.status).toBe(409)
    expect(await answer.text()).not.toContain('Brandt')
  })

  it('mails nobody about a password of an unknown address, and says the same', async () => {
    const texts = await Promise.all(
      ['liv@northmere.example', 'unknown@northmere.example'].map(async email =>
        (await world.nobody.send('POST', '/api/password', { email })).text(),
      ),
    )
    expect(texts[0]).toBe(texts[1])
    expect(await world.db.$count(t.passwordLinks)).toBe(1)
    const stored = JSON.stringify(await world.db.select().from(t.passwordLinks))
    const [mail] = await world.db.select().from(t.mails).where(like(t.mails.key, 'password:%'))
    expect(stored).not.toContain(/\/password\/(\S+)/.exec(mail!.text)![1]) // only the digest is kept
  })

  it('ends every session when a password is chosen anew', async () => {
    const nico = await world.as('nico')
    await world.nobody.send('POST', '/api/password', { email: 'nico@northmere.example' })
    const [mail] = await world.db.select().from(t.mails).where(eq(t.mails.to, 'nico@northmere.example'))
    await new Client(world.address).send('POST', `/api${/\/password\/\S+/.exec(mail!.text)![0]}`, {
      password: 'another long one',
    })
    expect((await nico.send('GET', base)).status).toBe(401)
  })
})
