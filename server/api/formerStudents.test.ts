import { and, eq, ne } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { atTheDesk, type Desk } from '#server/testing/marker'
import { testWorld, type World } from '#server/testing/world'
import type { ComposerView } from '#shared/planning/composer'

describe('the mark of a student who has left', () => {
  let world: World
  let desk: Desk
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    desk = await atTheDesk(world)
  })
  afterAll(() => world.close())

  const storedPoints = async (enrolmentId: string) => {
    const [row] = await world.db
      .select({ points: t.marks.points })
      .from(t.marks)
      .where(and(eq(t.marks.activityId, world.breakwater.id), eq(t.marks.enrolmentId, enrolmentId)))
    return row!.points
  }

  it('is calculated anew with everyone’s when the plan changes, and is nobody’s to hold or return', async () => {
    const { ines, mark, act, at, steps, rubric } = desk
    const saved = await mark(ines, 'oona', { steps: steps(...rubric.criteria.map(() => 1)) })
    expect(saved.status).toBe(200)
    const { id } = await world.enrolment('oona')
    const before = await storedPoints(id)
    expect(before).toBeGreaterThan(0)
    await world.db.update(t.enrolments).set({ state: 'withdrawn' }).where(eq(t.enrolments.id, id))
    await world.db.update(t.marks).set({ points: 1 }).where(eq(t.marks.enrolmentId, id))

    const path = `/api/activities/${world.breakwater.id}/plan`
    const { body: plan } = await ines.json<ComposerView>('GET', path)
    const changed = await ines.json('PATCH', path, {
      key: v7(),
      baseVersion: plan.version,
      change: { lateRule: { kind: 'perDay', graceMinutes: 5, percentPerDay: 1, floorPercent: 50 } },
      tell: false,
    })
    expect(changed.status).toBe(200)
    expect(await storedPoints(id)).toBeGreaterThan(1)
    expect((await act('hold', 'oona', saved.body.version)).status).toBe(404)
    expect((await ines.send('GET', await at('oona', '/preview'))).status).toBe(404)
  })

  it('of another seminar is not there', async () => {
    const elsewhere = await world.db
      .update(t.enrolments)
      .set({ role: 'student' })
      .where(ne(t.enrolments.seminarId, world.seminar.id))
      .returning({ id: t.enrolments.id })
    const path = `/api/activities/${world.pilot.id}/records/${elsewhere[0]!.id}`
    expect((await desk.ines.send('GET', `${path}/preview`)).status).toBe(404)
    expect((await desk.ines.send('GET', path)).status).toBe(404)
  })
})
