import { and, eq } from 'drizzle-orm'
import { strToU8, zipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { USUAL_REVIEW, type ReviewSettings } from '#core/contributing/review/reviewSettings'
import type { OwnReviews, ReviewDesk } from '#shared/contributing/review'
import type { PeersView, RepairView, TakeAnswer } from '#shared/marking/peers'
import type { RecordView } from '#shared/marking/desk'
import * as t from '#server/database/schema'
import { dealDue } from '#server/services/contributing/review/deal'
import { releaseDue } from '#server/services/marking/peers/moderate'
import type { Client } from '#server/testing/server'
import { doc, testWorld, words, type World } from '#server/testing/world'

const FIVE = ['liv', 'nico', 'kadri', 'solongo', 'femke'] as const
type Refused = {
  readonly code: string
  readonly detail: string
  readonly fields: Record<string, string>
  readonly theirs: unknown
}
const past = (hours: number) => new Date(Date.parse('2026-10-14T08:20:00Z') - hours * 3_600_000)

describe('a peer review from hand-in to mark', () => {
  let world: World
  const clients = new Map<string, Client>()
  const as = async (key: string) => {
    const client = clients.get(key) ?? (await world.as(key))
    clients.set(key, client)
    return client
  }
  let base: string
  beforeAll(async () => {
    world = await testWorld()
    base = `/api/activities/${world.essays.id}`
    const rubric = await world.rubric('Source report')
    const [version] = await world.db
      .select()
      .from(t.rubricVersions)
      .where(eq(t.rubricVersions.rubricId, rubric.id))
    await world.db
      .update(t.activities)
      .set({
        state: 'published',
        opensAt: past(200),
        points: 2000,
        pointStep: 10,
        scale: 'points',
        rubricVersionId: version!.id,
      })
      .where(eq(t.activities.id, world.essays.id))
    await world.db.delete(t.expectations).where(eq(t.expectations.activityId, world.essays.id))
    await set({
      each: 2,
      remarkWords: 3,
      ways: ['text', 'file', 'paper'],
      questions: [{ id: v7(), text: 'What would you ask?', model: 'A model question.', minWords: 2 }],
    })
    await times(-24, -24, -72)
  })
  afterAll(() => world.close())

  const set = (review: Partial<ReviewSettings>) =>
    world.db
      .update(t.activities)
      .set({ settings: { writeFirst: false, editMinutes: 30, review: { ...USUAL_REVIEW, ...review } } })
      .where(eq(t.activities.id, world.essays.id))
  /** When hand-in ends, reading begins and ends: hours ago, negative for hours ahead. */
  async function times(handInEnds: number, readingBegins: number, readingEnds: number) {
    await world.db.delete(t.phases).where(eq(t.phases.activityId, world.essays.id))
    const ids = { seminarId: world.seminar.id, activityId: world.essays.id }
    await world.db.insert(t.phases).values([
      { ...ids, name: 'write', startsAt: past(200), endsAt: past(handInEnds), position: 0 },
      { ...ids, name: 'review', startsAt: past(readingBegins), endsAt: past(readingEnds), position: 1 },
    ])
  }
  const handIn = async (who: string, text: string, fileIds: string[] = []) =>
    (await as(who)).json<{ id: string } & Refused>('POST', `${base}/contributions`, {
      key: v7(),
      parentId: null,
      doc: doc(text),
      fileIds,
    })
  const own = async (who: string) => (await (await as(who)).json<OwnReviews>('GET', `${base}/reviews`)).body
  const peers = async () => (await (await as('ines')).json<PeersView>('GET', `${base}/peers`)).body
  const staff = async <T = Refused>(what: string, body: object, method = 'POST', who = 'ines') =>
    (await as(who)).json<T>(method, `${base}/peers/${what}`, body)
  const given = (desk: ReviewDesk, points: number, remark = 'three words here') => ({
    points: Object.fromEntries(desk.criteria.map(c => [c.id, points])),
    remarks: Object.fromEntries(desk.criteria.map(c => [c.id, remark])),
    answers: Object.fromEntries(desk.questions.map(q => [q.id, 'who measured'])),
    passages: [],
    private: 'between us only',
  })
  async function review(who: string, id: string, points: number, remark?: string) {
    const client = await as(who)
    const desk = (await client.json<ReviewDesk>('GET', `/api/reviews/${id}`)).body
    await client.send('PUT', `/api/reviews/${id}/opened`)
    const saved = await client.json<{ version: number }>('PUT', `/api/reviews/${id}`, {
      ...given(desk, points, remark),
      baseVersion: desk.version,
    })
    expect(saved.status).toBe(200)
    return client.json<{ handedIn: number } & Refused>('POST', `/api/reviews/${id}/in`, { key: v7() })
  }

  it('takes work in once from each, in the ways it is taken, to be changed or taken back until the end; nothing is dealt before', async () => {
    expect((await handIn('liv', '')).body.fields.doc).toContain('nothing to hand in')
    const first = await handIn('liv', `Liv on marks. ${words(300)}`)
    expect(first.status).toBe(200)
    expect((await handIn('liv', words(300))).body.fields.doc).toContain('in already')
    const liv = await as('liv')
    const text = (await liv.json<{ version: number }>('GET', `/api/contributions/${first.body.id}`)).body
    expect(
      (
        await liv.send('PATCH', `/api/contributions/${first.body.id}`, {
          key: v7(),
          doc: doc(`Changed. ${words(300)}`),
          baseVersion: text.version,
        })
      ).status,
    ).toBe(200)
    expect(
      (await liv.send('PUT', `/api/contributions/${first.body.id}/withdrawn`, { withdrawn: true })).status,
    ).toBe(200)
    expect((await handIn('liv', `Anew. ${words(300)}`)).status).toBe(200)
    for (const who of FIVE.slice(1))
      expect((await handIn(who, `By somebody. ${words(280)}`)).status).toBe(200)
    expect(
      (
        await (
          await as('ines')
        ).json<Refused>('POST', `${base}/contributions`, { key: v7(), parentId: null, doc: doc('Mine.') })
      ).body.fields.doc,
    ).toContain('handed in by students')
    // on paper: ticked off by staff, counted without words, taken back while nobody reviews it
    const paz = (await world.enrolment('paz')).id
    const tick = async (handedIn: boolean) =>
      (await as('henrik')).json<Refused>('PUT', `${base}/hand-in/paper`, {
        key: v7(),
        enrolmentId: paz,
        handedIn,
      })
    expect((await tick(true)).status).toBe(200)
    expect((await own('paz')).handIn.onPaper).toBe(true)
    expect((await tick(false)).status).toBe(200)
    expect((await peers()).notHandedIn).toContain(paz)
    const early = await staff('deal', { key: v7(), seed: 1 })
    expect([early.status, early.body.code]).toEqual([409, 'handInOpen'])
    // nobody else reads what is handed in
    const nico = await (await as('nico')).json<{ contributions: unknown[] }>('GET', `${base}/contributions`)
    expect(nico.body.contributions).toHaveLength(1)
  })

  it('finds names before they go in, in the text and in the document, everyone’s alike', async () => {
    const bytes = zipSync({
      '[Content_Types].xml': strToU8(
        '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
      ),
      '_rels/.rels': strToU8(
        '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
      ),
      'docProps/core.xml': strToU8(
        '<cp:coreProperties xmlns:cp="c" xmlns:dc="d"><dc:creator>Emrys Tal</dc:creator></cp:coreProperties>',
      ),
      'word/document.xml': strToU8(
        '<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body><w:p><w:r><w:t>Written by Emrys Tal, for Oona.</w:t></w:r></w:p></w:body></w:document>',
      ),
    })
    const id = v7()
    const emrys = await as('emrys')
    expect(
      (
        await emrys.send('POST', `${base}/files`, {
          id,
          name: 'emrys-tal.docx',
          base64: Buffer.from(bytes).toString('base64'),
          transcript: null,
        })
      ).status,
    ).toBe(200)
    const found = await emrys.json<{ found: Array<{ exact: string; isOwn: boolean }> }>(
      'POST',
      `${base}/hand-in/names`,
      { text: 'As I said to emrys@northmere.example, N4121.', fileIds: [id] },
    )
    expect(found.body.found.map(f => [f.exact, f.isOwn])).toEqual([
      ['emrys@northmere.example', true],
      ['N4121', true],
      ['Emrys Tal', true],
      ['Oona', false],
    ])
    const [stored] = await world.db.select().from(t.files).where(eq(t.files.id, id))
    expect(stored!.bytes.includes(Buffer.from('Emrys Tal</dc:creator>'))).toBe(false)
    expect((await handIn('emrys', 'A note.', [id])).status).toBe(200)
  })

  it('deals each their number, takes somebody late in by moving what nobody has opened, and never takes an opened one away', async () => {
    await times(30, 20, -48)
    expect((await staff('deal', { key: v7(), seed: 7 })).status).toBe(200)
    let view = await peers()
    expect(view.allocations).toHaveLength(12)
    for (const p of [...FIVE, 'emrys']) {
      const id = (await world.enrolment(p)).id
      expect(view.allocations.filter(a => a.reviewerId === id)).toHaveLength(2)
      expect(view.allocations.filter(a => a.subjectId === id)).toHaveLength(2)
      expect(view.allocations.some(a => a.reviewerId === id && a.subjectId === id)).toBe(false)
    }
    // the reviewer of a file gets it under another name, at another address
    const reader = view.allocations.find(
      a => a.subjectId === view.people.find(p => p.givenName === 'Emrys')!.id,
    )!
    const key = FIVE.find(
      k => view.people.find(p => p.id === reader.reviewerId)!.givenName.toLowerCase() === k,
    )!
    const file = await (await as(key)).send('GET', `/api/reviews/${reader.id}/files/0`)
    expect([file.status, file.headers.get('content-disposition')]).toEqual([
      200,
      "inline; filename*=UTF-8''Work%201.docx",
    ])
    expect(
      await (await (await as(key)).send('GET', `/api/reviews/${reader.id}/files/0?text=1`)).text(),
    ).toContain('Written by')
    // one is opened; then somebody hands in late
    const opened = view.allocations.find(a => a.id !== reader.id && a.reviewerId !== reader.reviewerId)!
    await (await as(await keyOf(opened.reviewerId))).send('PUT', `/api/reviews/${opened.id}/opened`)
    expect((await handIn('tomasz', `Late. ${words(300)}`)).status).toBe(200)
    view = await peers()
    expect(
      view.works.find(w => w.authorId === view.people.find(p => p.givenName === 'Tomasz')!.id)!.lateMinutes,
    ).toBeGreaterThan(0)
    const before = new Set(view.allocations.map(a => `${a.reviewerId}:${a.entryId}`))
    const plan = (await staff<RepairView>('repair', { idle: [opened.reviewerId] })).body
    expect(plan.remove.some(p => p.reviewerId === opened.reviewerId && p.entryId === opened.entryId)).toBe(
      false,
    )
    const repair = (await staff<RepairView>('repair', {})).body
    expect(repair.remove).toHaveLength(2)
    expect(
      (
        await staff(
          'pairs',
          { key: v7(), baseVersion: repair.baseVersion, add: repair.add, remove: repair.remove },
          'PUT',
        )
      ).status,
    ).toBe(200)
    const stale = await staff(
      'pairs',
      { key: v7(), baseVersion: repair.baseVersion, add: [], remove: [] },
      'PUT',
      'henrik',
    )
    expect([stale.status, stale.body.code]).toEqual([409, 'changedMeanwhile'])
    view = await peers()
    expect(view.allocations).toHaveLength(14)
    expect(view.allocations.filter(a => !before.has(`${a.reviewerId}:${a.entryId}`))).toHaveLength(4)
    expect(view.allocations.some(a => a.id === opened.id)).toBe(true)
    const taken = await staff(
      'pairs',
      {
        key: v7(),
        baseVersion: view.version,
        add: [],
        remove: [{ reviewerId: opened.reviewerId, entryId: opened.entryId }],
      },
      'PUT',
    )
    expect([taken.status, taken.body.code]).toEqual([409, 'begun'])
    expect((await staff('deal', { key: v7(), seed: 3 })).body.code).toBe('begun')
    const self = view.works[0]!
    expect(
      (
        await staff(
          'pairs',
          {
            key: v7(),
            baseVersion: view.version,
            add: [{ reviewerId: self.authorId, entryId: self.id }],
            remove: [],
          },
          'PUT',
        )
      ).body.fields.add,
    ).toContain('their own work')
    // dealt work is nobody's to change any more
    const liv = await world.contribution('liv', world.essays.id, 'entry')
    expect(
      (
        await (
          await as('liv')
        ).json<Refused>('PUT', `/api/contributions/${liv.id}/withdrawn`, { withdrawn: true })
      ).status,
    ).toBe(422)
  })

  it('says what is impossible, with the largest number and who stands in the way', async () => {
    await world.db.delete(t.allocations).where(eq(t.allocations.activityId, world.essays.id))
    await set({ each: 9, remarkWords: 3 })
    const refused = await staff('deal', { key: v7(), seed: 7 })
    expect(refused.body.fields.each).toMatch(
      /9 reviews each cannot be dealt: .+ may review only 6\. 6 each is the most/,
    )
    await set({
      each: 2,
      remarkWords: 3,
      questions: [{ id: v7(), text: 'What would you ask?', model: 'A model question.', minWords: 2 }],
    })
    const [liv, nico] = await Promise.all([world.enrolment('liv'), world.enrolment('nico')])
    expect((await staff('apart', { pairs: [[liv.id, nico.id]] }, 'PUT')).status).toBe(200)
    expect((await staff('deal', { key: v7(), seed: 7 })).status).toBe(200)
    const view = await peers()
    expect(
      view.allocations.some(
        a => [liv.id, nico.id].includes(a.reviewerId) && [liv.id, nico.id].includes(a.subjectId),
      ),
    ).toBe(false)
  })

  it('saves at every pause, refuses an outdated text with both, and takes in only what is whole', async () => {
    const mine = (await own('liv')).given
    expect(mine).toHaveLength(2)
    const liv = await as('liv')
    const id = mine[0]!.id
    const desk = (await liv.json<ReviewDesk>('GET', `/api/reviews/${id}`)).body
    expect(desk.questions[0]!.model).toBe('A model question.')
    expect(
      (await liv.json<{ review: { questions: Array<{ model: unknown }> } }>('GET', base)).body.review
        .questions[0]!.model,
    ).toBeNull()
    const half = { ...given(desk, 300), points: { [desk.criteria[0]!.id]: 350 } }
    const saved = await liv.json<{ version: number }>('PUT', `/api/reviews/${id}`, {
      ...half,
      baseVersion: null,
    })
    expect(saved.body.version).toBe(1)
    const stale = await liv.json<Refused>('PUT', `/api/reviews/${id}`, {
      ...half,
      private: 'otherwise',
      baseVersion: null,
    })
    expect([stale.status, (stale.body.theirs as { given: { private: string } }).given.private]).toEqual([
      409,
      'between us only',
    ])
    expect((await liv.json<Refused>('POST', `/api/reviews/${id}/in`, { key: v7() })).body.code).toBe(
      'lacking',
    )
    const above = await liv.json<Refused>('PUT', `/api/reviews/${id}`, {
      ...given(desk, 900),
      baseVersion: 1,
    })
    expect(above.body.fields.points).toContain('is more')
    expect((await review('liv', id, 400)).body.handedIn).toBe(1)
    // one can go on with it while reading lasts; nobody else reaches it
    expect((await (await as('nico')).send('GET', `/api/reviews/${id}`)).status).toBe(404)
    expect((await liv.send('POST', `/api/reviews/${id}/back`, { key: v7() })).status).toBe(200)
    expect((await own('liv')).given.find(g => g.id === id)).toMatchObject({ state: 'begun', missing: 0 })
    expect((await review('liv', id, 400)).body.handedIn).toBe(1)
  })

  it('puts everything together for the marker: consensus, set aside, taken, released, received, answered', async () => {
    for (const who of [...FIVE, 'emrys', 'tomasz'])
      for (const g of (await own(who)).given)
        if (g.state !== 'in') expect((await review(who, g.id, who === 'emrys' ? 100 : 400)).status).toBe(200)
    let view = await peers()
    const low = view.allocations.find(
      a => a.reviewerId === view.people.find(p => p.givenName === 'Emrys')!.id,
    )!
    expect(low).toMatchObject({ state: 'in', private: 'between us only', late: false })
    const judge = (as_: object) => staff(`allocations/${low.id}`, as_, 'PUT')
    expect((await judge({ as: 'setAside', reason: ' ' })).status).toBe(422)
    expect((await judge({ as: 'setAside', reason: 'It does not read the sources.' })).status).toBe(200)
    const author = low.subjectId
    const taken = (await staff<TakeAnswer>('take', { key: v7(), enrolmentIds: [author] })).body
    expect(taken).toEqual({ taken: [author], left: [] })
    const record = (await (await as('ines')).json<RecordView>('GET', `${base}/records/${author}`)).body
    expect(record.mark).toMatchObject({ state: 'held', takenFrom: 'consensus', points: 1600 })
    expect(JSON.stringify(record.mark.letter)).toContain('three words here')
    // the marker's own steps take its place, in points that lie between levels
    const steps = record.mark.steps.map(s => ({ ...s, points: 430 }))
    const changed = await (
      await as('ines')
    ).json<{ points: number; takenFrom: string | null }>('PUT', `${base}/records/${author}/mark`, {
      key: v7(),
      baseVersion: record.mark.version,
      steps,
      citations: [],
      letter: record.mark.letter,
      markerNote: '',
      lateWaived: false,
      excusedFrom: [],
      override: null,
      files: [],
    })
    expect(changed.body).toMatchObject({ points: 1720, takenFrom: null })
    // nothing is received before it is let out, and nothing that was set aside after
    const key = await keyOf(author)
    expect((await own(key)).received).toEqual([])
    expect((await (await as(key)).send('PUT', `/api/received/${v7()}/helpful`, { helpful: 4 })).status).toBe(
      404,
    )
    expect((await staff('release', { released: true }, 'PUT')).status).toBe(200)
    const received = (await own(key)).received
    expect(received).toHaveLength(1)
    expect(JSON.stringify(received)).not.toContain('between us only')
    expect(
      (await (await as(key)).send('PUT', `/api/received/${received[0]!.id}/helpful`, { helpful: 5 })).status,
    ).toBe(200)
    expect(
      (
        await (
          await as(key)
        ).send('PUT', `/api/received/${received[0]!.id}/answer`, {
          key: v7(),
          doc: doc('I have looked again.'),
        })
      ).status,
    ).toBe(200)
    view = await peers()
    expect(view.allocations.find(a => a.helpful === 5)).toMatchObject({
      subjectId: author,
      answerHtml: '<p>I have looked again.</p>',
    })
    const reader = view.allocations.find(a => a.helpful === 5)!
    const answered = (
      await (await as(await keyOf(reader.reviewerId))).json<ReviewDesk>('GET', `/api/reviews/${reader.id}`)
    ).body
    expect([answered.answerHtml, answered.mayTakeBack]).toEqual(['<p>I have looked again.</p>', false])
    expect(
      (
        await (
          await as('liv')
        ).json<Refused>('POST', `/api/reviews/${(await own('liv')).given[0]!.id}/back`, { key: v7() })
      ).body.code,
    ).toBe('passedOn')
  })

  it('lets everyone practise on a sample first, says how far they are off, and anchors the estimate with it', async () => {
    const view = await peers()
    const criteria = view.rubric!.criteria
    const id = v7()
    const points = Object.fromEntries(criteria.map(c => [c.id, 300]))
    expect(
      (await staff('samples', { key: v7(), id, doc: doc('A sample report.'), points: {}, why: {} })).body
        .fields.points,
    ).toContain('Give your own score')
    expect(
      (
        await staff('samples', {
          key: v7(),
          id,
          doc: doc('A sample report.'),
          points,
          why: { [criteria[0]!.id]: 'It only retells.' },
        })
      ).status,
    ).toBe(200)
    const practice = (await own('anselm')).given
    expect(practice).toMatchObject([{ kind: 'practice', called: 'Sample 1', state: 'owed' }])
    const anselm = await as('anselm')
    const before = await anselm.send('GET', `/api/reviews/${practice[0]!.id}`)
    expect(await before.text()).not.toContain('It only retells')
    expect((await review('anselm', practice[0]!.id, 450)).body.handedIn).toBe(1)
    const after = (await anselm.json<ReviewDesk>('GET', `/api/reviews/${practice[0]!.id}`)).body
    expect(after.sample).toEqual({ points, why: { [criteria[0]!.id]: 'It only retells.' } })
    expect(
      (await anselm.json<Refused>('POST', `/api/reviews/${practice[0]!.id}/back`, { key: v7() })).body.code,
    ).toBe('practised')
    expect((await peers()).samples[id]).toEqual(points)
    // practising is nobody's contribution to what is asked for
    const [extra] = await world.db
      .select()
      .from(t.contributions)
      .where(
        and(
          eq(t.contributions.authorId, (await world.enrolment('anselm')).id),
          eq(t.contributions.type, 'review'),
          eq(t.contributions.activityId, world.essays.id),
        ),
      )
    expect(extra!.state).toBe('shown')
    await world.db.insert(t.expectations).values({
      seminarId: world.seminar.id,
      activityId: world.essays.id,
      rule: { kind: 'reviews', need: 2, minWords: 1, due: 'review' },
      position: 0,
    })
    const checks = (await anselm.json<{ checks: Array<{ have: number }> }>('GET', `${base}/contributions`))
      .body.checks
    expect(checks).toMatchObject([{ have: 0, need: 2 }])
    expect(
      (await (await as('kadri')).json<{ checks: Array<{ have: number }> }>('GET', `${base}/contributions`))
        .body.checks,
    ).toMatchObject([{ have: 2, met: true }])
  })

  it('deals by itself when reading begins, and lets out at its time, each once', async () => {
    const now = past(0)
    await world.db.delete(t.allocations).where(eq(t.allocations.activityId, world.essays.id))
    await world.db
      .update(t.reviewRounds)
      .set({ dealtAt: null, releasedAt: null })
      .where(eq(t.reviewRounds.activityId, world.essays.id))
    await set({ each: 2, release: 'at', releaseAt: past(-2).toISOString() })
    expect([
      await dealDue(world.db, past(25)),
      await dealDue(world.db, now),
      await dealDue(world.db, now),
    ]).toEqual([0, 1, 0])
    expect((await peers()).allocations.filter(a => a.source === 'dealt')).toHaveLength(14)
    const told = () =>
      world.db.$count(
        t.notices,
        and(
          eq(t.notices.activityId, world.essays.id),
          eq(t.notices.text, 'What readers wrote to you in “Draft essays” can be read now.'),
        ),
      )
    const before = await told()
    expect([await releaseDue(world.db, now), (await told()) - before]).toEqual([0, 0])
    expect([await releaseDue(world.db, past(-3)), await releaseDue(world.db, past(-3))]).toEqual([1, 0])
    expect((await told()) - before).toBe(7)
  })

  async function keyOf(enrolmentId: string): Promise<string> {
    const [row] = await world.db
      .select({ email: t.persons.email })
      .from(t.enrolments)
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
      .where(eq(t.enrolments.id, enrolmentId))
    return row!.email.split('@')[0]!
  }
})
