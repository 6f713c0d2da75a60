import { and, eq, notInArray } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { RecordView } from '#shared/marking/desk'
import type { LetterView } from '#shared/marking/letter'
import type { TakeAnswer } from '#shared/marking/peers'

/** A share of the points for one's own reviewing: what it came to is taken with the consensus, and told with its parts. */
describe('what one’s own reviewing counts', () => {
  let world: World
  let ines: Client
  let base: string
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
    base = `/api/activities/${world.reports.id}`
  })
  afterAll(() => world.close())

  /** The same counted from the stored rows alone. */
  async function counted(reviewerId: string) {
    const own = await world.db
      .select()
      .from(t.allocations)
      .where(
        and(
          eq(t.allocations.activityId, world.reports.id),
          eq(t.allocations.reviewerId, reviewerId),
          notInArray(t.allocations.source, ['self', 'practice']),
        ),
      )
    const done = own.filter(a => a.handedInAt !== null && !a.notDone)
    const ratings = done.flatMap(a => a.helpful ?? [])
    return {
      owed: own.length,
      done: done.length,
      helpful:
        ratings.length > 0 ? Math.round((100 * ratings.reduce((a, b) => a + b, 0)) / ratings.length) : null,
    }
  }

  it('is told to the student with its parts and undone without a trace', async () => {
    const oona = await world.enrolment('oona')
    const take = () =>
      ines.json<TakeAnswer>('POST', `${base}/peers/take`, {
        key: v7(),
        enrolmentIds: [oona.id],
        what: 'consensus',
      })
    const record = async () => (await ines.json<RecordView>('GET', `${base}/records/${oona.id}`)).body.mark
    const before = await record()
    expect((await take()).body.taken).toEqual([oona.id])
    const parts = (await record()).reviewingParts!
    expect(parts).toMatchObject(await counted(oona.id))
    expect(parts.done).toBeGreaterThan(0)
    // undone, nothing of it is left
    const undone = await ines.json<TakeAnswer>('DELETE', `${base}/peers/take`, {
      key: v7(),
      enrolmentIds: [oona.id],
    })
    expect(undone.body.taken).toEqual([oona.id])
    expect(await record()).toMatchObject({
      reviewing: before.reviewing,
      reviewingParts: before.reviewingParts,
    })
    await take()
    await ines.json('POST', `${base}/return`, { key: v7(), enrolmentIds: [oona.id] })
    const { body: letter } = await (await world.as('oona')).json<LetterView>('GET', `${base}/letter`)
    expect(letter.reviewing).toMatchObject({ percent: 10, parts })
    // what was returned before there were parts is shown without them
    const [mark] = await world.db
      .select()
      .from(t.marks)
      .where(and(eq(t.marks.activityId, world.reports.id), eq(t.marks.enrolmentId, oona.id)))
    const { share, percent } = mark!.returned!.reviewing!
    await world.db
      .update(t.marks)
      .set({ returned: { ...mark!.returned!, reviewing: { share, percent } } })
      .where(eq(t.marks.id, mark!.id))
    const older = await (await world.as('oona')).json<LetterView>('GET', `${base}/letter`)
    expect(older.body.reviewing).toEqual({ share, percent, parts: null })
  })
})
