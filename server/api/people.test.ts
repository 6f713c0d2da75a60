import { eq, sql } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { testDatabase } from '#server/testing/database'
import { Client, testServer } from '#server/testing/server'
import { until } from '#server/testing/until'
import { testWorld, type World } from '#server/testing/world'
import type { GroupsView } from '#shared/people/groups'
import type { PeopleView, RosterAnswer, RosterPreview } from '#shared/people/people'
import type { SettingsView } from '#shared/people/settings'
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
    ).toHaveLength(3)

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
    expect(said.at(-1)).toEqual({ answer: { added: 500, changed: 0, back: 0, withdrawn: 0, passedOver: 0 } })
    expect((await inga.json<RosterAnswer>('POST', `/api/seminars/${id}/roster`, write)).body).toEqual({
      added: 500,
      changed: 0,
      back: 0,
      withdrawn: 0,
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
      base64: base64('name,email\n=cmd|x,formula@x.example\nPrince,p@x.example\n'),
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

  it('does not let a file rename or re-address somebody who has an account of their own', async () => {
    const csv = 'name,email,student number\nLivia Brandt-Owner,liv@northmere.example,\n'
    await ines.send('POST', `${base}/roster`, {
      key: key(),
      name: 'r.csv',
      base64: base64(csv),
      withdrawMissing: false,
      invite: false,
    })
    const [liv] = await world.db.select().from(t.persons).where(eq(t.persons.email, 'liv@northmere.example'))
    expect(liv!.name).toBe('Liv Brandt')
  })

  it('keeps the work of who is withdrawn, shuts them out, and lets them back in', async () => {
    const rasmus = await world.as('rasmus')
    const enrolment = await world.enrolment('rasmus')
    const written = await world.db.$count(t.contributions, eq(t.contributions.authorId, enrolment.id))
    expect((await ines.send('PATCH', `${base}/people/${enrolment.id}`, { state: 'withdrawn' })).status).toBe(
      200,
    )
    expect((await rasmus.send('GET', base)).status).toBe(404)
    expect((await rasmus.send('POST', '/api/join/KELP-4QX', { account: null })).status).toBe(403) // a code does not bring back who was withdrawn
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
    const [mail] = await world.db.select().from(t.mails)
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

describe('groups of a seminar', () => {
  let world: World
  let ines: Client
  let base: string
  const view = async () => (await ines.json<GroupsView>('GET', base)).body
  const rules = (some = {}) => ({
    by: 'size',
    count: 4,
    together: [],
    apart: [],
    mixSections: true,
    seed: 5,
    ...some,
  })
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
    base = `/api/seminars/${world.seminar.id}/groups`
  })
  afterAll(() => world.close())

  it('are dealt with topics, and rules that contradict each other are named as the smallest such set', async () => {
    const id = async (who: string) => (await world.enrolment(who)).id
    const [liv, nico, kadri, emrys] = await Promise.all(['liv', 'nico', 'kadri', 'emrys'].map(id))
    const made = await ines.json<{ id: string }>('POST', base, {
      key: key(),
      title: 'Debate',
      rules: rules({ together: [[liv, kadri]], apart: [[nico, emrys]] }),
      topics: ['Dredge', 'Quay'],
      selfJoin: false,
      most: null,
    })
    expect(made.status).toBe(200)
    const plan = (await view()).plans.find(p => p.id === made.body.id)!
    expect(plan.groups.map(g => g.title)).toEqual([
      'Dredge',
      'Quay',
      'Dredge 2',
      'Quay 2',
      'Dredge 3',
      'Quay 3',
    ])
    expect(plan.groups.flatMap(g => g.memberIds)).toHaveLength(24)
    const of = (who: string) => plan.groups.findIndex(g => g.memberIds.includes(who))
    expect(of(liv!)).toBe(of(kadri!))
    expect(of(nico!)).not.toBe(of(emrys!))
    const before = await world.db.$count(t.groupPlans)
    const refused = await ines.json<{ detail: string }>('POST', base, {
      key: key(),
      title: 'No',
      rules: rules({
        together: [
          [nico, emrys],
          [liv, kadri],
        ],
        apart: [
          [liv, nico],
          [kadri, liv],
        ],
      }),
      topics: [],
      selfJoin: false,
      most: null,
    })
    expect(refused.status).toBe(422)
    expect(refused.body.detail).toBe(
      'These contradict each other: keep Liv Brandt and Kadri Ilves together; keep Kadri Ilves and Liv Brandt apart. Take one of them off.',
    )
    expect(await world.db.$count(t.groupPlans)).toBe(before)
  })

  it('are joined by students up to the limit, of two for the last place by one', async () => {
    const { body } = await ines.json<{ id: string }>('POST', base, {
      key: key(),
      title: 'Walks',
      rules: rules({ by: 'number', count: 2 }),
      topics: [],
      selfJoin: true,
      most: 1,
    })
    const group = (await view()).plans.find(p => p.id === body.id)!.groups[0]!
    const students = await Promise.all(['liv', 'kadri', 'oona'].map(k => world.as(k)))
    const statuses = (
      await Promise.all(students.map(s => s.send('PUT', `${base}/${body.id}/mine`, { groupId: group.id })))
    ).map(a => a.status)
    expect(statuses.sort()).toEqual([200, 409, 409])
    expect((await view()).plans.find(p => p.id === body.id)!.groups[0]!.memberIds).toHaveLength(1)
    const closed = (await view()).plans.find(p => p.title === 'City pages')!
    expect((await students[0]!.send('PUT', `${base}/${closed.id}/mine`, { groupId: null })).status).toBe(403)
  })

  it("are not saved over somebody else's change, nor with somebody in two of them", async () => {
    const plan = (await view()).plans.find(p => p.title === 'City pages')!
    const write = {
      key: key(),
      baseVersion: plan.version,
      title: plan.title,
      selfJoin: false,
      most: null,
      groups: plan.groups,
    }
    expect((await ines.send('PUT', `${base}/${plan.id}`, write)).status).toBe(200)
    expect((await ines.send('PUT', `${base}/${plan.id}`, { ...write, key: key() })).status).toBe(409)
    const twice = plan.groups.map((g, i) =>
      i === 1 ? { ...g, memberIds: [...g.memberIds, plan.groups[0]!.memberIds[0]!] } : g,
    )
    expect(
      (
        await ines.send('PUT', `${base}/${plan.id}`, {
          ...write,
          key: key(),
          baseVersion: plan.version + 1,
          groups: twice,
        })
      ).status,
    ).toBe(422)
    expect((await ines.send('DELETE', `${base}/${plan.id}`)).status).toBe(409) // City pages is for them
  })

  it('keep what somebody wrote theirs when they are moved', async () => {
    const plan = (await view()).plans.find(p => p.title === 'City pages')!
    const [mover] = plan.groups[0]!.memberIds
    const [city] = await world.db.select().from(t.activities).where(eq(t.activities.title, 'City pages'))
    const work = async () =>
      (await view()).plans.find(p => p.id === plan.id)!.work.find(w => w.enrolmentId === mover)
    const before = (await work())?.contributions ?? 0
    const [row] = await world.db
      .insert(t.contributions)
      .values({
        seminarId: world.seminar.id,
        activityId: city!.id,
        authorId: mover!,
        type: 'pageVersion',
        state: 'shown',
        doc: { type: 'doc' },
        html: '',
        text: 'A page',
        words: 2,
        shownAt: new Date(),
      })
      .returning()
    expect(await work()).toEqual({ enrolmentId: mover, activity: 'City pages', contributions: before + 1 })
    const groups = plan.groups.map((g, i) => {
      const membersOf = () => {
        if (i === 0) return g.memberIds.slice(1)
        if (i === 1) return [...g.memberIds, mover!]
        return g.memberIds
      }
      return {
        ...g,
        memberIds: membersOf(),
      }
    })
    await ines.send('PUT', `${base}/${plan.id}`, {
      key: key(),
      baseVersion: plan.version,
      title: plan.title,
      selfJoin: false,
      most: null,
      groups,
    })
    expect(
      (await world.db.select().from(t.contributions).where(eq(t.contributions.id, row!.id)))[0],
    ).toMatchObject({ authorId: mover, activityId: city!.id, state: 'shown' })
  })
})

describe('settings of a seminar', () => {
  let world: World
  let ines: Client
  let path: string
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
    path = `/api/seminars/${world.seminar.id}/settings`
  })
  afterAll(() => world.close())

  it('are refused to the second of two, with what the first has stored', async () => {
    const { body } = await ines.json<SettingsView>('GET', path)
    const write = (title: string) =>
      ines.json<{ theirs: SettingsView }>('PUT', path, {
        key: key(),
        baseVersion: body.version,
        settings: { ...body.settings, title },
      })
    expect((await write('First')).status).toBe(200)
    const second = await write('Second')
    expect(second.status).toBe(409)
    expect(second.body.theirs.settings.title).toBe('First')
  })

  it('take weights of 95 %, and the plan says so', async () => {
    const { body } = await ines.json<SettingsView>('GET', path)
    const categories = body.settings.categories.map((c, i) =>
      i === 0 ? { ...c, weightPercent: c.weightPercent - 5 } : c,
    )
    expect(
      (
        await ines.send('PUT', path, {
          key: key(),
          baseVersion: body.version,
          settings: { ...body.settings, categories },
        })
      ).status,
    ).toBe(200)
    const plan = await ines.json<{ staff: { planRemarks: unknown[] } }>(
      'GET',
      `/api/seminars/${world.seminar.id}/plan`,
    )
    expect(plan.body.staff.planRemarks).toContainEqual({ code: 'weights', sum: 95 })
  })

  it('do not take away what something hangs on', async () => {
    const { body } = await ines.json<SettingsView>('GET', path)
    for (const part of [{ sections: [] }, { categories: [] }]) {
      expect(
        (
          await ines.send('PUT', path, {
            key: key(),
            baseVersion: body.version,
            settings: { ...body.settings, ...part },
          })
        ).status,
      ).toBe(422)
    }
    expect((await ines.json<SettingsView>('GET', path)).body).toEqual(body)
  })

  it('let an archived seminar be read and nothing be added', async () => {
    const liv = await world.as('liv')
    await ines.send('PUT', `/api/seminars/${world.seminar.id}/archived`, { archived: true })
    expect((await liv.send('GET', `/api/activities/${world.dredge.id}/contributions`)).status).toBe(200)
    expect(
      (
        await liv.send('POST', `/api/activities/${world.dredge.id}/contributions`, {
          key: key(),
          parentId: null,
          doc: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Late.' }] }] },
        })
      ).status,
    ).toBe(409)
    expect(
      (
        await ines.send('POST', `/api/seminars/${world.seminar.id}/people`, {
          key: key(),
          givenName: 'A',
          familyName: 'B',
          email: 'ab@x.example',
          role: 'student',
          sectionId: null,
          invite: false,
        })
      ).status,
    ).toBe(409)
    await ines.send('PUT', `/api/seminars/${world.seminar.id}/archived`, { archived: false })
    expect((await ines.send('GET', path)).status).toBe(200)
  })
})
