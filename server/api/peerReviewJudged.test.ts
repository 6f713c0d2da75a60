import { FIVE, past, peerReviewIn, type PeerReviewActs } from '#server/testing/peerReview'
import { and, eq, ne } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import * as t from '#server/database/schema'
import { doc, testWorld, words, type World } from '#server/testing/world'
import type { RecordView } from '#shared/marking/desk'
import type { TakeAnswer } from '#shared/marking/peers'

describe('reviews as the instructor judges them', () => {
  let world: World
  let { base, as, times, handIn, own, peers, staff, review, keyOf } = {} as PeerReviewActs
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ;({ base, as, times, handIn, own, peers, staff, review, keyOf } = await peerReviewIn(world))
    for (const who of [...FIVE, 'emrys', 'tomasz'])
      expect((await handIn(who, `By somebody. ${words(280)}`)).status).toBe(200)
    await times(30, 20, -48)
    expect((await staff('deal', { key: v7(), seed: 7 })).status).toBe(200)
    for (const who of [...FIVE, 'emrys', 'tomasz'])
      for (const g of (await own(who)).given)
        expect((await review(who, g.id, who === 'emrys' ? 100 : 400)).status).toBe(200)
    expect((await staff('release', { released: true }, 'PUT')).status).toBe(200)
  })
  afterAll(() => world.close())

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
})
