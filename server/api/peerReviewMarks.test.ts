import { FIVE, past, peerReviewIn, type PeerReviewActs, type Refused } from '#server/testing/peerReview'
import { words } from '#server/testing/world'
import { and, eq } from 'drizzle-orm'
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
  let { base, as, set, times, handIn, own, peers, staff, given, review, keyOf } = {} as PeerReviewActs
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ;({ base, as, set, times, handIn, own, peers, staff, given, review, keyOf } = await peerReviewIn(world))
    for (const who of [...FIVE, 'emrys'])
      expect((await handIn(who, `By somebody. ${words(280)}`)).status).toBe(200)
    await times(30, 20, -48)
    expect((await handIn('tomasz', `Late. ${words(300)}`)).status).toBe(200)
    const [liv, nico] = await Promise.all([world.enrolment('liv'), world.enrolment('nico')])
    expect((await staff('apart', { pairs: [[liv.id, nico.id]] }, 'PUT')).status).toBe(200)
    expect((await staff('deal', { key: v7(), seed: 7 })).status).toBe(200)
  })
  afterAll(() => world.close())

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
    const [begun] = await world.db.delete(t.allocations).where(eq(t.allocations.id, real!.id)).returning()
    await world.db.delete(t.contributions).where(eq(t.contributions.id, begun!.reviewId!))
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
})
