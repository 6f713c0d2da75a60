import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { localInstant } from '#core/planning/week'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'

const TITLE = 'Should the harbour board dredge?'
const BREAK = [{ week: 13, title: 'A week on the water' }] // 30 November to 6 December

describe('a seminar copied to a term with other breaks', () => {
  let world: World
  let ines: Client
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ines = await world.as('ines')
    await world.db
      .update(t.persons)
      .set({ foundsSeminars: true })
      .where(eq(t.persons.email, 'ines@northmere.example'))
    await world.db
      .update(t.seminars)
      .set({ weeks: 14, breaks: BREAK })
      .where(eq(t.seminars.id, world.seminar.id))
  })
  afterAll(() => world.close())

  const at = (day: string, time: string) => localInstant(day, time, world.seminar.timeZone)
  /** Times of the dredge: writing and responding. */
  async function setPhases(opens: Date, [writeEnds, respondEnds]: readonly [Date, Date]) {
    const ids = { seminarId: world.seminar.id, activityId: world.dredge.id }
    await world.db.update(t.activities).set({ opensAt: opens }).where(eq(t.activities.id, world.dredge.id))
    await world.db.delete(t.phases).where(eq(t.phases.activityId, world.dredge.id))
    await world.db.insert(t.phases).values([
      { ...ids, name: 'write', startsAt: opens, endsAt: writeEnds, position: 0 },
      { ...ids, name: 'respond', startsAt: writeEnds, endsAt: respondEnds, position: 1 },
    ])
  }
  const copy = async (breaks: ReadonlyArray<{ week: number; title: string }>) => {
    const id = v7()
    const answer = await ines.json<{ detail?: string; seminarId?: string }>(
      'POST',
      `/api/seminars/${world.seminar.id}/copy`,
      { id, code: 'HC 343', title: 'Harbour Cities again', firstDay: '2026-09-07', weeks: 14, breaks },
    )
    const rows = await world.db
      .select({ name: t.phases.name, startsAt: t.phases.startsAt, endsAt: t.phases.endsAt })
      .from(t.phases)
      .innerJoin(t.activities, eq(t.activities.id, t.phases.activityId))
      .where(and(eq(t.activities.seminarId, id), eq(t.activities.title, TITLE)))
      .orderBy(t.phases.position)
    return { ...answer, id, phases: rows }
  }

  it('puts what ended in a break to the end of the week before, where its phases would run into each other otherwise', async () => {
    const [opens, inBreak, after] = [
      at('2026-11-23', '08:00'),
      at('2026-12-02', '12:00'),
      at('2026-12-07', '12:00'),
    ]
    await setPhases(opens, [inBreak, after])
    const same = await copy(BREAK)
    expect(same.phases.map(p => p.endsAt)).toEqual([inBreak, after])
    const without = await copy([])
    expect(without.status).toBe(200)
    expect(without.phases.map(p => p.endsAt)).toEqual([at('2026-11-29', '23:59'), at('2026-11-30', '12:00')])
  })

  it('names the activity that has no place in the new term, and copies nothing', async () => {
    await setPhases(at('2026-11-23', '08:00'), [at('2026-12-01', '12:00'), at('2026-12-02', '12:00')])
    // two phases in the break, and one that goes on into the week after
    await world.db
      .update(t.phases)
      .set({ startsAt: at('2026-12-02', '12:00'), endsAt: at('2026-12-07', '12:00') })
      .where(and(eq(t.phases.activityId, world.dredge.id), eq(t.phases.name, 'respond')))
    await world.db
      .update(t.phases)
      .set({ startsAt: at('2026-12-01', '12:00'), endsAt: at('2026-12-02', '12:00') })
      .where(and(eq(t.phases.activityId, world.dredge.id), eq(t.phases.name, 'write')))
    const answer = await copy([])
    expect(answer.status).toBe(422)
    expect(answer.body.detail).toContain(`“${TITLE}” has no place in the new term.`)
    expect(await world.db.$count(t.seminars, eq(t.seminars.id, answer.id))).toBe(0)
  })

  it('is not silent because the one it was copied from was restored and is', async () => {
    await setPhases(at('2026-11-23', '08:00'), [at('2026-11-26', '12:00'), at('2026-11-28', '12:00')])
    await world.db
      .update(t.seminars)
      .set({ silentSince: new Date() })
      .where(eq(t.seminars.id, world.seminar.id))
    const { id, status } = await copy([])
    expect(status).toBe(200)
    const [made] = await world.db.select().from(t.seminars).where(eq(t.seminars.id, id))
    expect(made!.silentSince).toBeNull()
  })
})
