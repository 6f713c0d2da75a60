import { FIVE, past, peerReviewIn, type PeerReviewActs, type Refused } from '#server/testing/peerReview'
import { words } from '#server/testing/world'
import { and, eq, ne } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import type { ReviewDesk } from '#shared/kinds/review/review'
import type { TakeAnswer } from '#shared/marking/peers'
import type { RecordView } from '#shared/marking/desk'
import * as t from '#server/database/schema'
import { dealDue } from '#server/kinds/review/deal'
import { releaseDue } from '#server/services/marking/peers/moderate'
import { doc, testWorld, type World } from '#server/testing/world'

describe('reviews from reading to mark', () => {
  let world: World
  let { base, as, set, times, handIn, own, peers, staff } = {} as PeerReviewActs
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ;({ base, as, set, times, handIn, own, peers, staff } = await peerReviewIn(world))
    for (const who of [...FIVE, 'emrys'])
      expect((await handIn(who, `By somebody. ${words(280)}`)).status).toBe(200)
    await times(30, 20, -48)
    expect((await handIn('tomasz', `Late. ${words(300)}`)).status).toBe(200)
    const [liv, nico] = await Promise.all([world.enrolment('liv'), world.enrolment('nico')])
    expect((await staff('apart', { pairs: [[liv.id, nico.id]] }, 'PUT')).status).toBe(200)
    expect((await staff('deal', { key: v7(), seed: 7 })).status).toBe(200)
  })
  afterAll(() => world.close())

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
    ).json<{ points: number; takenFrom: string | null; ownSteps: unknown[] }>(
      'PUT',
      `${base}/records/${author}/mark`,
      {
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
      },
    )
    expect(changed.body).toMatchObject({ points: 1720, takenFrom: null })
    expect(changed.body.ownSteps).toEqual(steps)
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

  it('lets a review that came in after the release out in a batch of its own, and tells its reader of an answer', async () => {
    const view = await peers()
    const key = await keyOf(view.works.find(w => w.authorIds.length === 1)!.authorId)
    const before = (await own(key)).received.map(r => r.id)
    const mine = (await world.enrolment(key)).id
    const [late] = await world.db
      .select()
      .from(t.allocations)
      .where(and(eq(t.allocations.subjectId, mine), eq(t.allocations.receivedId, before[0]!)))
    // the clock stands still here: the release was an hour before what came in last
    await world.db
      .update(t.peerReviews)
      .set({ releasedAt: past(1), releasedUpTo: past(1) })
      .where(eq(t.peerReviews.activityId, world.essays.id))
    await world.db
      .update(t.allocations)
      .set({ handedInAt: past(2) })
      .where(eq(t.allocations.activityId, world.essays.id))
    await world.db
      .update(t.allocations)
      .set({ handedInAt: past(0.5) })
      .where(eq(t.allocations.id, late!.id))
    const told = () =>
      world.db.$count(
        t.notices,
        and(
          eq(t.notices.activityId, world.essays.id),
          eq(t.notices.text, 'What readers wrote to you in “Draft essays” can be read now.'),
        ),
      )
    expect((await own(key)).received.map(r => r.id)).toEqual(before.slice(1))
    const hidden = await (
      await as(key)
    ).send('PUT', `/api/received/${late!.receivedId}/helpful`, { helpful: 3 })
    expect([hidden.status, (await peers()).waiting]).toEqual([404, 1])
    const [upTo, toldBefore] = [(await peers()).releasedUpTo, await told()]
    expect((await staff('release', { released: true, late: true }, 'PUT')).status).toBe(200)
    expect([(await own(key)).received.map(r => r.id), (await peers()).waiting]).toEqual([before, 0])
    expect((await told()) - toldBefore).toBe(1) // its author, nobody else
    expect((await staff('release', { released: false, late: true, upTo }, 'PUT')).status).toBe(200)
    expect([(await own(key)).received.length, (await peers()).waiting]).toEqual([before.length - 1, 1])
    expect((await staff('release', { released: true, late: true }, 'PUT')).status).toBe(200)

    const reader = late!.reviewerId
    const answers = () =>
      world.db.$count(
        t.notices,
        and(
          eq(t.notices.enrolmentId, reader),
          eq(t.notices.text, 'Whoever wrote a work you reviewed in “Draft essays” has answered you.'),
        ),
      )
    const answersBefore = await answers()
    for (const words of ['Thank you.', 'Thank you very much.'])
      expect(
        (
          await (
            await as(key)
          ).send('PUT', `/api/received/${late!.receivedId}/answer`, { key: v7(), doc: doc(words) })
        ).status,
      ).toBe(200)
    expect((await answers()) - answersBefore).toBe(late!.answerHtml === null ? 1 : 0)
    // how helpful one was is a mean, of two at least
    const readerKey = await keyOf(reader)
    await world.db
      .update(t.allocations)
      .set({ helpful: null })
      .where(and(eq(t.allocations.activityId, world.essays.id), eq(t.allocations.reviewerId, reader)))
    await world.db.update(t.allocations).set({ helpful: 3 }).where(eq(t.allocations.id, late!.id))
    expect((await own(readerKey)).helpfulMean).toBeNull()
    await world.db
      .update(t.allocations)
      .set({ helpful: 4 })
      .where(
        and(
          eq(t.allocations.activityId, world.essays.id),
          eq(t.allocations.reviewerId, reader),
          ne(t.allocations.id, late!.id),
        ),
      )
    expect((await own(readerKey)).helpfulMean).toEqual({ mean: 3.5, of: 2 })
  })

  it('keeps own points beside a consensus, takes each by itself, and undoes to the last detail', async () => {
    const ines = await as('ines')
    const view = await peers()
    const work = view.works.find(w => view.marks.every(m => !w.authorIds.includes(m.enrolmentId)))!
    const author = work.authorId
    const mark = async () => (await ines.json<RecordView>('GET', `${base}/records/${author}`)).body.mark
    const stored = async () => {
      const [row] = await world.db
        .select()
        .from(t.marks)
        .where(and(eq(t.marks.enrolmentId, author), eq(t.marks.activityId, world.essays.id)))
      const steps = row
        ? await world.db.select().from(t.criterionMarks).where(eq(t.criterionMarks.markId, row.id))
        : []
      return row ? { ...row, version: 0, beforeTake: null, steps } : null
    }
    const take = (what: 'consensus' | 'own') =>
      staff<TakeAnswer>('take', { key: v7(), enrolmentIds: [author], what })
    const undo = () => staff<TakeAnswer>('take', { key: v7(), enrolmentIds: [author] }, 'DELETE')

    // nothing was there, and nothing is there again
    expect(await stored()).toBeNull()
    expect((await take('own')).body.left[0]!.why).toContain('points of your own for every criterion')
    expect((await take('consensus')).body.taken).toEqual([author])
    expect((await undo()).body.taken).toEqual([author])
    expect(await stored()).toBeNull()
    // own points and a letter
    const rubric = view.rubric!
    const ownSteps = rubric.criteria.map(c => ({ criterionId: c.id, levelId: c.levels[0]!.id, points: 275 }))
    const write = {
      ...{ steps: [], citations: [], markerNote: 'mine', lateWaived: true, excusedFrom: [], override: null },
      ...{ files: [], ownSteps, letter: doc('Dear author, look at the second page.') },
    }
    const saved = await ines.json<RecordView['mark']>('PUT', `${base}/records/${author}/mark`, {
      ...{ key: v7(), baseVersion: 0, ...write },
    })
    expect(saved.body).toMatchObject({ state: 'open', steps: [], ownSteps, takenFrom: null })
    const before = await stored()
    expect((await take('consensus')).body.taken).toEqual([author])
    expect(await mark()).toMatchObject({ state: 'held', takenFrom: 'consensus', ownSteps })
    expect((await undo()).body.taken).toEqual([author])
    expect(await stored()).toEqual(before)
    expect((await take('own')).body.taken).toEqual([author])
    expect(await mark()).toMatchObject({ state: 'held', takenFrom: null, points: 1100, ownSteps })
    // one after the other: undone, what was held before is held again
    const own = await stored()
    expect((await take('consensus')).body.taken).toEqual([author])
    expect((await undo()).body.taken).toEqual([author])
    expect(await stored()).toEqual(own)
    // what was changed since stays, and is named
    expect((await take('consensus')).body.taken).toEqual([author])
    const held = await mark()
    await ines.send('PUT', `${base}/records/${author}/mark`, {
      ...{ key: v7(), baseVersion: held.version, ...write, steps: held.steps, markerNote: 'more' },
    })
    expect((await undo()).body.left[0]!.why).toContain('changed since')
    expect(await mark()).toMatchObject({ state: 'held', markerNote: 'more', ownSteps })
    // steps changed by hand on the desk are own points from then on, those left as they came are not
    const [first, ...rest] = (await mark()).steps
    const onDesk = await ines.json<RecordView['mark']>('PUT', `${base}/records/${author}/mark`, {
      ...{ key: v7(), baseVersion: (await mark()).version, ...write, ownSteps: undefined },
      steps: [{ ...first!, points: 50 }, ...rest],
    })
    expect(onDesk.body.takenFrom).toBeNull()
    expect(new Map(onDesk.body.ownSteps.map(s => [s.criterionId, s.points]))).toEqual(
      new Map(ownSteps.map(s => [s.criterionId, s.criterionId === first!.criterionId ? 50 : s.points])),
    )
  })

  it('sets a review aside so that it is not done either, tells its reader if wanted, and counts it again', async () => {
    const view = await peers()
    const review = view.allocations.find(
      a => a.state === 'in' && a.source === 'dealt' && a.setAside === null,
    )!
    const reader = await as(await keyOf(review.reviewerId))
    const judge = (body: object) => staff(`allocations/${review.id}`, body, 'PUT')
    const told = () =>
      world.db
        .select({ text: t.notices.text, detail: t.notices.detail })
        .from(t.notices)
        .where(and(eq(t.notices.enrolmentId, review.reviewerId), eq(t.notices.kind, 'review')))
        .orderBy(t.notices.id)
    await world.db.insert(t.expectations).values({
      seminarId: world.seminar.id,
      activityId: world.essays.id,
      rule: { kind: 'reviews', need: 2, minWords: 1, due: 'review' },
      position: 0,
    })
    const record = async () =>
      (await reader.json<{ checks: Array<{ have: number }> }>('GET', `${base}/contributions`)).body.checks[0]!
        .have
    const before = { told: (await told()).length, reviews: await record() }
    expect((await judge({ as: 'setAside', reason: 'It is of another text.' })).status).toBe(200)
    expect([(await told()).length, await record()]).toEqual([before.told, before.reviews])
    const aside = { as: 'setAside', reason: 'It is of another text.', countsAsDone: false, tell: true }
    expect((await judge(aside)).status).toBe(200)
    expect((await told()).slice(before.told)).toEqual([
      { text: 'A review you wrote in “Draft essays” does not count.', detail: 'It is of another text.' },
    ])
    expect(await record()).toBe(before.reviews - 1)
    expect((await peers()).allocations.find(a => a.id === review.id)).toMatchObject({
      setAside: 'It is of another text.',
      notDone: true,
      setAsideTold: true,
    })
    const mine = (
      await reader.json<{ given: Array<{ id: string; setAside: string | null }> }>('GET', `${base}/reviews`)
    ).body.given
    expect(mine.find(g => g.id === review.id)!.setAside).toBe('It is of another text.')
    expect((await judge(aside)).status).toBe(200)
    expect((await judge({ as: 'open' })).status).toBe(200)
    expect((await told()).slice(before.told).map(n => n.text)).toEqual([
      'A review you wrote in “Draft essays” does not count.',
      'A review you wrote in “Draft essays” counts again.',
    ])
    expect(await record()).toBe(before.reviews)
    await world.db.delete(t.expectations).where(eq(t.expectations.activityId, world.essays.id))
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
    // a real review opens once the sample is in
    const [real] = await world.db
      .insert(t.allocations)
      .values({
        seminarId: world.seminar.id,
        activityId: world.essays.id,
        reviewerId: (await world.enrolment('anselm')).id,
        subjectId: view.works[0]!.authorId,
        entryId: view.works.find(w => !w.isSample)!.id,
        source: 'dealt',
      })
      .returning()
    const begin = async () =>
      anselm.json<Refused>('PUT', `/api/reviews/${real!.id}`, {
        ...{ points: {}, remarks: {}, answers: {}, passages: [], private: 'begun', baseVersion: null },
      })
    expect((await begin()).body.code).toBe('practiseFirst')
    expect((await anselm.json<ReviewDesk>('GET', `/api/reviews/${real!.id}`)).body).toMatchObject({
      open: false,
      practiseFirst: practice[0]!.id,
    })
    const before = await anselm.send('GET', `/api/reviews/${practice[0]!.id}`)
    expect(await before.text()).not.toContain('It only retells')
    expect((await review('anselm', practice[0]!.id, 450)).body.handedIn).toBe(1)
    const after = (await anselm.json<ReviewDesk>('GET', `/api/reviews/${practice[0]!.id}`)).body
    expect(after.sample).toEqual({ points, why: { [criteria[0]!.id]: 'It only retells.' } })
    expect(
      (await anselm.json<Refused>('POST', `/api/reviews/${practice[0]!.id}/back`, { key: v7() })).body.code,
    ).toBe('practised')
    expect((await begin()).status).toBe(200)
    await world.db.delete(t.allocations).where(eq(t.allocations.id, real!.id))
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
      .update(t.peerReviews)
      .set({ dealtAt: null, releasedAt: null })
      .where(eq(t.peerReviews.activityId, world.essays.id))
    await set({ each: 2, release: 'at', releaseAt: past(-2).toISOString() })
    expect([
      await dealDue(world.db, past(25)),
      await dealDue(world.db, now),
      await dealDue(world.db, now),
    ]).toEqual([0, 1, 0])
    expect((await peers()).allocations.filter(a => a.source === 'dealt')).toHaveLength(14)
    // everyone's own work becomes theirs to review as reviewing has begun, also where it was dealt before
    await set({ each: 2, self: true, release: 'at', releaseAt: past(-2).toISOString() })
    expect([await dealDue(world.db, now), await dealDue(world.db, now)]).toEqual([1, 0])
    expect((await peers()).allocations.filter(a => a.source === 'self')).toHaveLength(7)
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
