import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { returnDue } from '#server/services/marking/returnMark'
import { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { SettingsView } from '#shared/people/settings'
const key = () => v7()

describe('settings of a seminar', () => {
  let world: World
  let ines: Client
  let path: string
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ines = await world.as('ines')
    path = `/api/seminars/${world.seminar.id}/settings`
  })
  afterAll(() => world.close())

  it('are refused to the second of two, with what the first has stored', async () => {
    const { body } = await ines.json<SettingsView>('GET', path)
    const write = (title: string) =>
      ines.json<{ theirs: SettingsView }>('PUT', path, {
        key: key(),
        baseVersion: body.version,
        settings: { ...body.settings, title },
      })
    expect((await write('First')).status).toBe(200)
    const second = await write('Second')
    expect(second.status).toBe(409)
    expect(second.body.theirs.settings.title).toBe('First')
  })

  it('say how many marked activities each category has', async () => {
    const { body } = await ines.json<SettingsView>('GET', path)
    const rows = await world.db
      .select()
      .from(t.activities)
      .where(eq(t.activities.seminarId, world.seminar.id))
    const counted = rows.filter(a => a.points !== null && a.scale !== 'none' && !a.practice)
    for (const { id } of body.settings.categories)
      expect(body.markedIn.find(m => m.categoryId === id)?.activities ?? 0).toBe(
        counted.filter(a => a.categoryId === id).length,
      )
    expect(body.markedIn.length).toBeGreaterThan(2)
  })

  it('take weights of 95 %, and the plan says so', async () => {
    const { body } = await ines.json<SettingsView>('GET', path)
    const categories = body.settings.categories.map((c, i) =>
      i === 0 ? { ...c, weightPercent: c.weightPercent - 5 } : c,
    )
    expect(
      (
        await ines.send('PUT', path, {
          key: key(),
          baseVersion: body.version,
          settings: { ...body.settings, categories },
        })
      ).status,
    ).toBe(200)
    const plan = await ines.json<{ staff: { planRemarks: unknown[] } }>(
      'GET',
      `/api/seminars/${world.seminar.id}/plan`,
    )
    expect(plan.body.staff.planRemarks).toContainEqual({ code: 'weights', sum: 95 })
  })

  it('do not take away what something hangs on', async () => {
    const { body } = await ines.json<SettingsView>('GET', path)
    for (const part of [{ sections: [] }, { categories: [] }]) {
      expect(
        (
          await ines.send('PUT', path, {
            key: key(),
            baseVersion: body.version,
            settings: { ...body.settings, ...part },
          })
        ).status,
      ).toBe(422)
    }
    expect((await ines.json<SettingsView>('GET', path)).body).toEqual(body)
  })

  it('let an archived seminar be read and nothing be added', async () => {
    const liv = await world.as('liv')
    await ines.send('PUT', `/api/seminars/${world.seminar.id}/archived`, { archived: true })
    expect((await liv.send('GET', `/api/activities/${world.dredge.id}/contributions`)).status).toBe(200)
    expect(
      (
        await liv.send('POST', `/api/activities/${world.dredge.id}/contributions`, {
          key: key(),
          parentId: null,
          doc: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Late.' }] }] },
        })
      ).status,
    ).toBe(409)
    expect(
      (
        await ines.send('POST', `/api/seminars/${world.seminar.id}/people`, {
          key: key(),
          givenName: 'A',
          familyName: 'B',
          email: 'ab@x.example',
          role: 'student',
          sectionId: null,
          invite: false,
        })
      ).status,
    ).toBe(409)
    // what was to return by itself waits, too
    const [held] = await world.db
      .update(t.marks)
      .set({ state: 'held', returnAt: new Date(0), returned: null, returnedAt: null })
      .where(eq(t.marks.activityId, world.breakwater.id))
      .returning({ id: t.marks.id })
    expect(held).toBeDefined()
    expect(await returnDue(world.db, new Date())).toBe(0)
    expect(await world.db.$count(t.marks, and(eq(t.marks.id, held!.id), eq(t.marks.state, 'held')))).toBe(1)
    await ines.send('PUT', `/api/seminars/${world.seminar.id}/archived`, { archived: false })
    expect((await ines.send('GET', path)).status).toBe(200)
  })
})
