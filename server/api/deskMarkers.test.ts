import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { atTheDesk, type Desk, type Refusal } from '#server/testing/marker'
import { TEST_NOW, type Client } from '#server/testing/server'
import { doc, testWorld, words, type World } from '#server/testing/world'
import type { DeskView, MarkingQueue, PhraseView, RecordView } from '#shared/marking/desk'
import type { LetterView } from '#shared/marking/letter'

const now = new Date(TEST_NOW)

describe('several markers and what goes with a letter', () => {
  let world: World
  let { ines, henrik, at, record, steps, mark, act } = {} as Desk
  beforeAll(async () => {
    world = await testWorld()
    ;({ ines, henrik, at, record, steps, mark, act } = await atTheDesk(world))
  })
  afterAll(() => world.close())

  const letter = async (student: string) =>
    (await world.as(student)).json<LetterView>('GET', `/api/activities/${world.breakwater.id}/letter`)

  it('marks contribution by contribution and makes one mark of them; a withdrawn one counts no more', async () => {
    const [first, second] = await Promise.all(
      ['rasmus', 'abena'].map(
        async who =>
          (
            await world.db
              .select()
              .from(t.contributions)
              .where(
                and(
                  eq(t.contributions.authorId, (await world.enrolment(who)).id),
                  eq(t.contributions.activityId, world.dredge.id),
                  eq(t.contributions.state, 'shown'),
                  eq(t.contributions.type, 'reply'),
                ),
              )
          )[0]!,
      ),
    )
    expect(second).toBeDefined()
    await world.db
      .update(t.activities)
      .set({ combine: { by: 'best', each: 400, k: 2 }, rubricVersionId: null, points: 1000 })
      .where(eq(t.activities.id, first!.activityId))
    const give = (body: object) =>
      ines.json<Refusal>('PUT', `/api/contributions/${first!.id}/mark`, { points: null, done: null, ...body })
    expect((await give({ points: 401 })).body.fields.points).toContain('up to 4 points')
    expect((await give({ done: true })).status).toBe(422)
    expect((await give({ points: 300 })).status).toBe(200)
    const of = (student: string) => record(student, ines, first!.activityId)
    expect((await of('rasmus')).mark).toMatchObject({ points: 400, criteriaLeft: 0 }) // 300 of 800, of ten points: 3.75, to half points
    expect((await of('abena')).mark).toMatchObject({ criteriaLeft: 1 })
    await world.db
      .update(t.contributions)
      .set({ state: 'withdrawn', withdrawnAt: now })
      .where(eq(t.contributions.id, first!.id))
    expect((await of('rasmus')).mark).toMatchObject({ criteriaLeft: 1 })
  })

  it('hides the first marking from the second marker until theirs is handed over, on every way to it; then both see both', async () => {
    const id = (await world.enrolment('femke')).id
    const me = (
      await henrik.json<{ markers: Array<{ id: string; isMe: boolean }> }>(
        'GET',
        `/api/seminars/${world.seminar.id}/marking`,
      )
    ).body.markers.find(m => m.isMe)!.id
    await mark(ines, 'femke', {
      steps: steps(0, 1, 2, 0),
      letter: doc('A letter that is the first marker’s'),
      markerNote: 'the first marker’s note',
    })
    expect(
      (
        await ines.json('POST', `/api/activities/${world.breakwater.id}/second`, {
          key: v7(),
          enrolmentIds: [id],
          markerId: me,
        })
      ).status,
    ).toBe(200)
    const seen = await henrik.send('GET', await at('femke'))
    const blind = (await seen.json()) as RecordView
    expect(blind.mark).toMatchObject({ steps: [], version: 0, markerNote: '' })
    expect(JSON.stringify(blind)).not.toContain('first marker’s')
    for (const rest of ['/preview', '/history', '/replies'])
      expect((await henrik.send('GET', await at('femke', rest))).status).toBe(403)
    expect((await mark(henrik, 'femke', { steps: steps(3) })).body.code).toBe('secondAsked')
    expect((await record('femke')).second).toBeNull() // the first marker waits, too
    const own = async (done: boolean, ...places: number[]) =>
      henrik.json<RecordView & Refusal>('PUT', await at('femke', '/second'), {
        key: v7(),
        steps: steps(...places),
        remark: 'I read page four otherwise.',
        done,
      })
    expect((await own(true, 1)).status).toBe(422)
    expect((await own(false, 1)).body.second?.steps).toHaveLength(1)
    const done = await own(true, 1, 1, 2, 0)
    expect(done.body.mark.markerNote).toBe('the first marker’s note')
    expect((await record('femke')).second).toMatchObject({
      marker: expect.stringContaining('Henrik') as string,
      state: 'done',
      remark: 'I read page four otherwise.',
    })
    expect((await own(false, 3)).body.code).toBe('secondDone')
    expect(
      (await ines.json<RecordView>('POST', await at('femke', '/agree'), { key: v7(), baseVersion: 0 })).body
        .second?.state,
    ).toBe('agreed')
  })

  it('deals records out evenly and shows each marker their share', async () => {
    const { body: desk } = await ines.json<DeskView>('GET', `/api/activities/${world.breakwater.id}/desk`)
    await ines.json('PUT', `/api/activities/${world.breakwater.id}/shares`, {
      key: v7(),
      enrolmentIds: desk.students.map(s => s.id),
      markerIds: desk.markers.map(m => m.id),
    })
    for (const as of [ines, henrik]) {
      const { body } = await as.json<MarkingQueue>('GET', `/api/seminars/${world.seminar.id}/marking`)
      const queue = body.activities.find(a => a.id === world.breakwater.id)!
      expect(Object.values(queue.mine!).reduce((a, b) => a + b)).toBe(12)
    }
    expect(
      (
        await ines.json<Refusal>('PUT', `/api/activities/${world.breakwater.id}/shares`, {
          key: v7(),
          enrolmentIds: [desk.students[0]!.id],
          markerIds: [desk.students[1]!.id],
        })
      ).status,
    ).toBe(422)
  })

  it('keeps what goes with a letter from everyone but staff until it is returned, then from all but its student', async () => {
    const png =
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
    const fileId = v7()
    expect(
      (
        await ines.json('POST', `/api/seminars/${world.seminar.id}/files`, {
          id: fileId,
          name: 'page.png',
          base64: png,
          transcript: null,
        })
      ).status,
    ).toBe(200)
    await mark(ines, 'nico', { steps: steps(2, 2, 2, 2), files: [{ id: fileId, spoken: false }] })
    const status = async (who: string) =>
      (await (await world.as(who)).send('GET', `/api/files/${fileId}`)).status
    expect(await Promise.all(['nico', 'liv', 'henrik'].map(status))).toEqual([404, 404, 200])
    expect(
      (await mark(ines, 'oona', { files: [{ id: fileId, spoken: false }] })).body.fields.files,
    ).toContain('Add it again')
    await act('return', 'nico')
    expect(await Promise.all(['nico', 'liv', 'henrik'].map(status))).toEqual([200, 404, 200])
    expect((await letter('nico')).body.files).toMatchObject([{ name: 'page.png', spoken: false }])
    // taken off the mark afterwards, it is still in the letter the student has
    await mark(ines, 'nico', { steps: steps(2, 2, 2, 2) })
    expect(await Promise.all(['nico', 'liv'].map(status))).toEqual([200, 404])
  })

  it('takes a letter of 5,000 words whole, and refuses one of 20,000 with a sentence that loses nothing', async () => {
    const long = words(5000)
    expect((await mark(ines, 'oona', { steps: steps(1, 1, 1, 1), letter: doc(long) })).status).toBe(200)
    const refused = await mark(ines, 'oona', { steps: steps(1, 1, 1, 1), letter: doc(words(20_000)) })
    expect(refused.status).toBe(422)
    expect(refused.body.fields.letter).toMatch(/characters; up to 60,000 fit/)
    await act('return', 'oona')
    expect((await letter('oona')).body.html).toContain(long.slice(-400))
  })

  it('keeps phrases to their owner and counts their uses', async () => {
    const id = v7()
    await ines.json('PUT', `/api/seminars/${world.seminar.id}/phrases`, {
      id,
      text: 'Set the second ledger beside it, {first name}.',
      criterion: 'Use of evidence',
    })
    await ines.json('POST', `/api/seminars/${world.seminar.id}/phrases/${id}/used`)
    const mine = async (as: Client) =>
      (
        await as.json<{ phrases: PhraseView[] }>('GET', `/api/seminars/${world.seminar.id}/phrases`)
      ).body.phrases.find(p => p.id === id)
    expect(await mine(ines)).toMatchObject({ uses: 1, criterion: 'Use of evidence' })
    expect(await mine(henrik)).toBeUndefined()
    expect(
      (
        await henrik.json('PUT', `/api/seminars/${world.seminar.id}/phrases`, {
          id,
          text: 'Mine now',
          criterion: null,
        })
      ).status,
    ).toBe(404)
    await henrik.json('DELETE', `/api/seminars/${world.seminar.id}/phrases/${id}`)
    expect(await mine(ines)).toMatchObject({ text: 'Set the second ledger beside it, {first name}.' })
  })
})
