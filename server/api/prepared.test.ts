import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { testWorld, type World } from '#server/testing/world'
import type { GroupsView } from '#shared/people/groups'

let world: World
beforeAll(async () => {
  world = await testWorld({ minutes: false })
})
afterAll(() => world.close())

/** Whom a student is to review of their teammates, and who is to review them. */
async function reviewing(enrolmentId: string) {
  const rows = await world.db
    .select()
    .from(t.allocations)
    .where(and(eq(t.allocations.activityId, world.teammates.id), eq(t.allocations.state, 'owed')))
  return {
    of: rows.flatMap(a => (a.reviewerId === enrolmentId ? [a.subjectId] : [])).sort(),
    by: rows.flatMap(a => (a.subjectId === enrolmentId ? [a.reviewerId] : [])).sort(),
  }
}

it('gives whoever comes into a group their teammates to review, in the act that moves them', async () => {
  const ines = await world.as('ines')
  const base = `/api/seminars/${world.seminar.id}/groups`
  const paz = (await world.enrolment('paz')).id
  const { plans } = (await ines.json<GroupsView>('GET', base)).body
  const plan = plans.find(p => p.groups.some(g => g.memberIds.includes(paz)))!
  const from = plan.groups.find(g => g.memberIds.includes(paz))!
  const to = plan.groups.find(g => g !== from)!
  // nobody has begun
  await world.db.delete(t.allocations).where(eq(t.allocations.activityId, world.teammates.id))
  const moved = await ines.send('PUT', `${base}/${plan.id}`, {
    key: v7(),
    baseVersion: plan.version,
    title: plan.title,
    selfJoin: false,
    most: null,
    groups: plan.groups.map(g => ({
      id: g.id,
      title: g.title,
      memberIds: g === to ? [...g.memberIds, paz] : g.memberIds.filter(id => id !== paz),
    })),
  })
  expect(moved.status).toBe(200)
  const { of, by } = await reviewing(paz)
  expect(of).toEqual([...to.memberIds, paz].sort())
  expect(by).toEqual([...to.memberIds, paz].sort())
})

it('asks nobody to review whoever has left the seminar', async () => {
  const ines = await world.as('ines')
  const kadri = await world.enrolment('kadri')
  expect((await reviewing(kadri.id)).by.length).toBeGreaterThan(1)
  const path = `/api/seminars/${world.seminar.id}/people/${kadri.id}`
  expect((await ines.send('PATCH', path, { state: 'withdrawn' })).status).toBe(200)
  expect(await reviewing(kadri.id)).toEqual({ of: [], by: [] })
})
