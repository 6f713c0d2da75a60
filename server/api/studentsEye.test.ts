import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { doc, testWorld, words, type World } from '#server/testing/world'
import type { TermPlan } from '#shared/planning/plan'

const key = () => v7()

describe("the student's eye", () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())

  it('sees what a student sees, writes what only staff see, is marked and counted nowhere', async () => {
    const [ines, liv] = [await world.as('ines'), await world.as('liv')]
    const seminar = `/api/seminars/${world.seminar.id}`
    const counts = async () =>
      (await liv.thread(`/api/activities/${world.dredge.id}/contributions`)).body.contributions.length
    const before = await counts()
    const plan = async () =>
      (await (await world.as('henrik')).json<TermPlan>('GET', `${seminar}/plan`)).body.activities.find(
        a => a.id === world.dredge.id,
      )!.counts
    const stood = await plan()
    expect((await ines.send('PUT', `${seminar}/students-eye`, { on: true })).status).toBe(200)
    expect((await ines.json<{ role: string; studentsEye: boolean }>('GET', seminar)).body).toMatchObject({
      role: 'student',
      studentsEye: true,
    })
    expect((await ines.send('GET', `/api/activities/${world.essays.id}`)).status).toBe(404) // a draft
    expect((await ines.send('GET', `${seminar}/people`)).status).toBe(403)
    expect((await ines.thread(`/api/activities/${world.dredge.id}/contributions`)).body).toMatchObject({
      waiting: true,
      contributions: [],
    })
    expect(
      (
        await ines.send('POST', `/api/activities/${world.dredge.id}/contributions`, {
          key: key(),
          parentId: null,
          doc: doc(`Only a trial. ${words(210)}`),
        })
      ).status,
    ).toBe(200)
    expect(
      (await ines.thread(`/api/activities/${world.dredge.id}/contributions`)).body.contributions.length,
    ).toBe(before + 1)
    expect(await counts()).toBe(before)
    expect(JSON.stringify((await liv.json('GET', `${seminar}/find?q=trial`)).body)).not.toContain('trial')
    await ines.send('PUT', `${seminar}/students-eye`, { on: false })
    expect(await plan()).toEqual(stood)
    const desk = (
      await ines.json<{ students: Array<{ id: string; practice: boolean }>; counts: unknown }>(
        'GET',
        `/api/activities/${world.dredge.id}/desk`,
      )
    ).body
    const practice = desk.students.find(s => s.practice)!
    expect(desk.counts).toEqual(stood)
    expect((await ines.send('GET', `/api/activities/${world.dredge.id}/records/${practice.id}`)).status).toBe(
      200,
    )
    expect((await liv.send('PUT', `${seminar}/students-eye`, { on: true })).status).toBe(403)
  })
})
