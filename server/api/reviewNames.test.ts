import { and, eq, inArray, ne } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import type { OwnReviews, ReviewDesk } from '#shared/kinds/review/review'
import * as t from '#server/database/schema'
import { listenTo } from '#server/testing/listenTo'
import { everythingInPaper, signedPaper } from '#server/testing/paper'
import { until } from '#server/testing/until'
import type { Client } from '#server/testing/server'
import { doc, testWorld, type World } from '#server/testing/world'
import { people } from '#demo/people'

const students = people.filter(p => p.role === 'student')
const word = (name: string) =>
  new RegExp(`(?<![\\p{L}\\p{N}])${name.replace(/[-]/g, '[-\\u2010-\\u2015]')}(?![\\p{L}\\p{N}])`, 'u')
const WORDS = new Map(
  students
    .flatMap(s => [s.given, s.family])
    .map(name => [name, { start: name.split('-')[0]!, word: word(name) }]),
)
/** Where a name stands as a word, or null. The slow search runs only where the name's first letters are at all. */
const placeOf = (name: string, text: string): number | null => {
  const { start, word: whole } = WORDS.get(name)!
  return text.includes(start) ? (whole.exec(text)?.index ?? null) : null
}
/** Those of the secrets that stand in a text: ids are sought among all ids in it, the rest letter by letter. */
function foundIn(secrets: readonly string[], text: string): string[] {
  const ids = new Set(text.match(/[0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12}/g))
  return secrets.filter(s => ids.has(s) || (s.length !== 36 && text.includes(s)))
}

/** Everything of a peer review that a student can get, as bytes: data, pages, feed, exports, files, live events, notices, mail, letter. */
describe('who reviewed whom', () => {
  let world: World
  const clients = new Map<string, Client>()
  const as = async (key: string) => {
    const client = clients.get(key) ?? (await world.as(key))
    clients.set(key, client)
    return client
  }
  beforeAll(async () => {
    world = await testWorld()
    const ines = await world.as('ines')
    // one reader signed her name in a remark: the desk flags it, and it is set aside before anything is let out
    const composedNote = await world.allocation(world.reports.id, { by: 'malin', of: 'oona' })
    expect(
      (
        await ines.send('PUT', `/api/activities/${world.reports.id}/peers/allocations/${composedNote.id}`, {
          as: 'setAside',
          reason: 'It is signed.',
        })
      ).status,
    ).toBe(200)
    // a paper that says who made it in every place it can came with one work
    const work = await world.contribution('solongo', world.reports.id, 'entry')
    const paper = await signedPaper('Solongo Gantulga', 'Whose silt is it in the end?')
    expect(placeOf('Gantulga', await everythingInPaper(paper))).not.toBeNull()
    const file = { id: v7() }
    const uploaded = await (
      await as('solongo')
    ).send('POST', `/api/activities/${world.reports.id}/files`, {
      id: file.id,
      name: 'solongo-gantulga.pdf',
      base64: paper.toString('base64'),
      transcript: null,
    })
    expect(uploaded.status).toBe(200)
    await world.db
      .insert(t.contributionFiles)
      .values({ seminarId: world.seminar.id, contributionId: work.id, fileId: file.id, position: 0 })
    expect((await (await world.as('kadri')).send('GET', `/api/files/${file.id}`)).status).toBe(404)
  })
  afterAll(() => world.close())

  it('stands in nothing any student of the seminar can get, before and after the release', async () => {
    const listening = await Promise.all(
      ['petra', 'solongo', 'liv', 'nico'].map(async key => ({
        key,
        stream: await listenTo(await world.as(key), world.reports.id),
      })),
    )
    // somebody hands a review in while its author has the page open: neither hears anything of it
    const petra = await as('petra')
    const late = await world.allocation(world.reports.id, { by: 'petra', of: 'nico' })
    const desk = (await petra.json<ReviewDesk>('GET', `/api/reviews/${late.id}`)).body
    await petra.send('PUT', `/api/reviews/${late.id}`, {
      points: Object.fromEntries(desk.criteria.map(c => [c.id, 300])),
      remarks: Object.fromEntries(desk.criteria.map(c => [c.id, 'Six words and then some more of them.'])),
      answers: {},
      passages: [],
      private: '',
      baseVersion: null,
    })
    expect(
      (await petra.json<{ handedIn: number }>('POST', `/api/reviews/${late.id}/in`, { key: v7() })).body
        .handedIn,
    ).toBe(1)
    const enrolments = await world.db
      .select({
        id: t.enrolments.id,
        personId: t.enrolments.personId,
        email: t.persons.email,
        studentNumber: t.enrolments.studentNumber,
      })
      .from(t.enrolments)
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
      .where(eq(t.enrolments.role, 'student'))
    const [rows, dealt, files] = await Promise.all([
      world.db
        .select({ id: t.contributions.id, authorId: t.contributions.authorId, type: t.contributions.type })
        .from(t.contributions)
        .where(eq(t.contributions.activityId, world.reports.id)),
      world.db.select().from(t.allocations).where(eq(t.allocations.activityId, world.reports.id)),
      world.db.select({ id: t.files.id, madeBy: t.files.madeBy }).from(t.files),
    ])
    const isOfReview = new Set([...rows.map(r => r.id), ...dealt.flatMap(a => [a.id, a.receivedId])])
    // ids made for students are drawn at random: no time can be read off them
    for (const a of dealt) expect([a.id[14], a.receivedId[14]]).toEqual(['4', '4'])
    const ines = await world.as('ines')
    const sawPaper = new Set<string>()
    for (const released of [false, true]) {
      if (released) {
        expect(
          (await ines.send('PUT', `/api/activities/${world.reports.id}/peers/release`, { released: true }))
            .status,
        ).toBe(200)
        // one came in after the release; an author rates and answers what they received
        await world.db
          .update(t.allocations)
          .set({ handedInAt: new Date('2026-10-14T09:20:00Z') })
          .where(eq(t.allocations.id, late.id))
        const solongo = await as('solongo')
        const got = (await solongo.json<OwnReviews>('GET', `/api/activities/${world.reports.id}/reviews`))
          .body.received
        for (const { id } of got) {
          expect((await solongo.send('PUT', `/api/received/${id}/helpful`, { helpful: 4 })).status).toBe(200)
          expect(
            (
              await solongo.send('PUT', `/api/received/${id}/answer`, {
                key: v7(),
                doc: doc('Thank you; the silt is on its way.'),
              })
            ).status,
          ).toBe(200)
        }
        const held = await world.db
          .select({ id: t.marks.enrolmentId })
          .from(t.marks)
          .where(and(eq(t.marks.activityId, world.reports.id), eq(t.marks.state, 'held')))
        await ines.json('POST', `/api/activities/${world.reports.id}/return`, {
          key: v7(),
          enrolmentIds: held.map(h => h.id),
        })
      }
      for (const [n, person] of students.entries()) {
        // nothing has come to anybody before the release: every second student looks; afterwards each
        if (!released && n % 2 === 1) continue
        const me = (await world.enrolment(person.key)).id
        // pages are made from the same answers: every third student looks at them, too
        const all = await everything(person.key, released, n % 3 === 0)
        if (person.key !== 'solongo' && all.includes('Whose silt is it in the end?')) sawPaper.add(person.key)
        const others = students.filter(s => s.key !== person.key)
        for (const other of others)
          for (const name of [other.given, other.family])
            expect([person.key, released, name, placeOf(name, all)]).toEqual([
              person.key,
              released,
              name,
              null,
            ])
        const secret = [
          ...enrolments
            .filter(e => e.id !== me)
            .flatMap(e => [e.id, e.personId, e.email, ...(e.studentNumber ? [e.studentNumber] : [])]),
          // not even one's own review's: it is filed under the work's author
          ...rows.filter(r => r.authorId !== me || r.type === 'review').map(r => r.id),
          ...dealt.filter(a => a.reviewerId !== me).map(a => a.id),
          ...dealt.filter(a => a.subjectId !== me).map(a => a.receivedId),
          ...files.filter(f => f.madeBy !== me).map(f => f.id),
        ]
        expect([person.key, foundIn(secret, all)]).toEqual([person.key, []])
        // elsewhere classmates have names; there it is the work and the reviews that must not turn up
        const beside = await elsewhere(person.key, n % 3 === 0)
        expect([
          person.key,
          foundIn(
            secret.filter(s => isOfReview.has(s)),
            beside,
          ),
        ]).toEqual([person.key, []])
        if (person.key !== 'solongo') expect(beside).not.toContain('stops the water behind it from moving')
      }
    }
    // what came in after the release has reached nobody yet; an answer has reached its reader
    expect(await everything('nico', true, true)).not.toContain('Six words and then some more')
    expect(await everything('kadri', true, true)).toContain('the silt is on its way')
    // and so has the paper, to those who read that work
    expect(sawPaper.size).toBeGreaterThan(0)
    // released words have reached their authors, so the search searched something
    expect(await everything('solongo', true, true)).toContain('It is the boldest move here')
    expect(await everything('oona', true, true)).not.toContain('it has no centre')
    await until('the mails of the release', async () => (await world.db.$count(t.mails)) >= 15)
    const told = await world.db
      .select({ text: t.mails.text, subject: t.mails.subject, to: t.mails.to })
      .from(t.mails)
    for (const mail of told.filter(m => m.text.includes('Source reports'))) {
      const own = students.find(s => `${s.key}@northmere.example` === mail.to)!
      for (const other of students.filter(s => s !== own))
        for (const name of [other.given, other.family])
          expect([mail.to, word(name).test(`${mail.subject}\n${mail.text}`)]).toEqual([mail.to, false])
    }
    for (const { key, stream } of listening) {
      await stream.close()
      expect([key, stream.heard]).toEqual([key, []])
      for (const r of rows.filter(x => x.type === 'review'))
        expect([key, stream.raw().includes(r.id)]).toEqual([key, false])
      for (const other of students.filter(s => s.key !== key))
        expect(word(other.family).test(stream.raw())).toBe(false)
    }
  })

  it('tells no time at which anybody wrote, and no order in which they came', async () => {
    const liv = await world.as('liv')
    const list = await (await liv.send('GET', `/api/activities/${world.reports.id}/reviews`)).text()
    const own = JSON.parse(list) as OwnReviews
    const times = new Set([own.writeEndsAt, own.reviewEndsAt])
    const desks = await Promise.all(
      own.given.map(async g => (await liv.send('GET', `/api/reviews/${g.id}`)).text()),
    )
    for (const text of [list, ...desks])
      for (const found of text.match(/\d{4}-\d\d-\d\dT[\d:.]+Z/g) ?? []) expect(times.has(found)).toBe(true)
    expect(own.received.length).toBe(3)
    expect(own.received.map(r => r.id)).toEqual([...own.received.map(r => r.id)].sort())
    expect(own.given.map(g => g.id)).toEqual([...own.given.map(g => g.id)].sort())
    // the same reader goes by another name for each work, and is called the same by its author and themselves
    const called = desks.map(d => (JSON.parse(d) as { ownCalled: string }).ownCalled)
    const reader = await world.allocation(world.reports.id, { by: 'liv', of: 'petra' })
    const petra = (
      await (await world.as('petra')).json<OwnReviews>('GET', `/api/activities/${world.reports.id}/reviews`)
    ).body
    const received = petra.received.find(r => r.id === reader.receivedId)!
    expect(received.from).toBe(
      (JSON.parse(desks[own.given.findIndex(g => g.id === reader.id)]!) as { ownCalled: string }).ownCalled,
    )
    expect(called).toContain(received.from)
  })

  it('is not told among teammates either, though they know each other', async () => {
    const [mine] = await world.db
      .select()
      .from(t.allocations)
      .where(
        and(
          eq(t.allocations.activityId, world.teammates.id),
          eq(t.allocations.subjectId, (await world.enrolment('nico')).id),
          ne(t.allocations.reviewerId, (await world.enrolment('nico')).id),
        ),
      )
    const nico = await world.as('nico')
    const own = (await nico.json<OwnReviews>('GET', `/api/activities/${world.teammates.id}/reviews`)).body
    expect(own.received).toHaveLength(3)
    const text = JSON.stringify(own.received)
    const mates = await world.db
      .select({ id: t.enrolments.id, given: t.persons.givenName })
      .from(t.enrolments)
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
      .where(and(eq(t.enrolments.role, 'student'), ne(t.persons.givenName, 'Nico')))
    for (const mate of mates)
      expect([mate.given, text.includes(mate.id), word(mate.given).test(text)]).toEqual([
        mate.given,
        false,
        false,
      ])
    expect(text).not.toContain(mine!.id)
    expect(text).not.toContain('we waited for him twice') // said to the instructor alone
  })

  async function elsewhere(key: string, pages: boolean): Promise<string> {
    const client = await as(key)
    const s = `/api/seminars/${world.seminar.id}`
    return (
      await Promise.all(
        [
          s,
          ...[
            'plan',
            'week',
            'grades',
            'letters',
            'groups',
            'notices',
            'find?q=silt',
            'find?q=petition',
            'find?q=moving',
          ].map(r => `${s}/${r}`),
          ...(pages ? [`/seminars/${world.seminar.id}/week`, `/seminars/${world.seminar.id}/feedback`] : []),
        ].map(async path => (await client.send('GET', path)).text()),
      )
    ).join('\n')
  }

  async function everything(key: string, released: boolean, pages: boolean): Promise<string> {
    const client = await as(key)
    const a = `/api/activities/${world.reports.id}`
    const page = `/seminars/${world.seminar.id}/activities/${world.reports.id}`
    const own = (await client.json<OwnReviews>('GET', `${a}/reviews`)).body
    const feed = await client.json<{ address: string }>('POST', `${a}/feed`)
    const ids = await world.db
      .select({ id: t.contributions.id })
      .from(t.contributions)
      .where(and(eq(t.contributions.activityId, world.reports.id), inArray(t.contributions.type, ['review'])))
    const paths = [
      a,
      ...[
        'contributions',
        'reviews',
        'desk',
        'peers',
        'letter',
        'look-alikes',
        'distribution',
        'plan',
        'find?q=silt',
        'find?q=question',
        'export?as=html',
        'export?as=md',
        'export?as=json',
      ].map(r => `${a}/${r}`),
      new URL(feed.body.address).pathname,
      ...own.given.flatMap(g => [`/api/reviews/${g.id}`, `/api/reviews/${g.id}/files/0`]),
      ...(pages
        ? [
            page,
            `${page}/peers`,
            ...own.given.map(g => `${page}/reviews/${g.id}`),
            ...(released ? [`${page}/letter`] : []),
          ]
        : []),
    ]
    // texts asked for one by one answer nothing of reviews; their ids are what is asked, so only the answer is looked at
    const texts = await (
      await client.send(
        'GET',
        `${a}/texts?ids=${ids
          .slice(0, 80)
          .map(i => i.id)
          .join(',')}`,
      )
    ).text()
    expect(texts).toBe('{"texts":[]}')
    const answers = await Promise.all(
      paths.map(async path => {
        const r = await client.send('GET', path)
        const isPaper = r.status === 200 && r.headers.get('content-type') === 'application/pdf'
        const text = isPaper ? await everythingInPaper(Buffer.from(await r.arrayBuffer())) : await r.text()
        return `${path.startsWith('/api/seminars') ? '' : JSON.stringify([...r.headers])}\n${text}`
      }),
    )
    return answers.join('\n').replaceAll('\\u2019', '’').replaceAll('&#39;', "'")
  }
})
