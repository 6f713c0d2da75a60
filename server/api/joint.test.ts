import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { hashPassword } from '#server/access/password'
import * as t from '#server/database/schema'
import type { ActivityView } from '#shared/contributing/activity'
import type { ComposerView } from '#shared/planning/composer'
import { doc, email, testWorld, words, type World } from '#server/testing/world'
import { namesOf } from '#server/services/people/nameView'

describe('a discussion held with another seminar', () => {
  let world: World
  let other: typeof t.seminars.$inferSelect
  beforeAll(async () => {
    world = await testWorld()
    const { db } = world
    other = (await db.select().from(t.seminars).where(eq(t.seminars.code, 'XX 1')))[0]!
    const [ines] = await db
      .select()
      .from(t.persons)
      .where(eq(t.persons.email, email('ines')))
    await db.insert(t.enrolments).values({
      seminarId: other.id,
      personId: ines!.id,
      ...namesOf(ines!),
      role: 'instructor',
    })
    const [guest] = await db
      .insert(t.persons)
      .values({
        email: email('guest'),
        name: 'Gudrun Guest',
        givenName: 'Gudrun',
        familyName: 'Guest',
        passwordHash: await hashPassword('harbour'),
        confirmedAt: new Date(),
      })
      .returning()
    await db.insert(t.enrolments).values({
      seminarId: other.id,
      personId: guest!.id,
      ...namesOf(guest!),
      role: 'student',
    })
  })
  afterAll(() => world.close())

  const path = (rest = '') => `/api/activities/${world.dredge.id}${rest}`
  async function change(who: string, part: Record<string, unknown>) {
    const client = await world.as(who)
    const view = await client.json<ComposerView>('GET', path('/plan'))
    return client.json<ComposerView>('PATCH', path('/plan'), {
      key: v7(),
      baseVersion: view.body.version,
      change: part,
      tell: true,
    })
  }

  it("is nobody else's before, and only an instructor of both can join them", async () => {
    const guest = await world.as('guest')
    expect((await guest.send('GET', path())).status).toBe(404)
    const [third] = await world.db
      .insert(t.seminars)
      .values({
        code: 'XX 2',
        title: 'Further',
        college: '',
        timeZone: 'Europe/Amsterdam',
        firstDay: other.firstDay,
        weeks: 12,
      })
      .returning()
    const refused = await change('ines', { jointSeminarIds: [third!.id] })
    expect(refused.status).toBe(422)
    expect(JSON.stringify(refused.body)).toContain('seminars you instruct yourself')
  })

  it('takes the others in: they are told, find it in their own seminar, write, are read and marked', async () => {
    expect((await change('ines', { jointSeminarIds: [other.id] })).status).toBe(200)
    const guest = await world.as('guest')
    const view = await guest.json<ActivityView>('GET', path())
    expect(view.body).toMatchObject({ seminarId: other.id, joint: ['HC 342'], standing: 'nothing' })
    const week = await guest.json<{ due: Array<{ activityId: string }> }>(
      'GET',
      `/api/seminars/${other.id}/week`,
    )
    expect(week.body.due.map(d => d.activityId)).toContain(world.dredge.id)
    const [notice] = await world.db.select().from(t.notices).where(eq(t.notices.seminarId, other.id))
    expect(notice).toMatchObject({ activityId: world.dredge.id, kind: 'changed' })
    const mails = await world.db.select().from(t.mails).where(eq(t.mails.seminarId, other.id))
    expect(mails[0]!.text).toContain(`/seminars/${other.id}/activities/${world.dredge.id}`)
    // write before you read holds for guests as for everyone
    expect((await guest.thread(path('/contributions'))).body).toMatchObject({
      waiting: true,
      contributions: [],
    })
    const posted = await guest.json<{ id: string }>('POST', path('/contributions'), {
      key: v7(),
      parentId: null,
      doc: doc(words(210)),
    })
    expect(posted.status).toBe(200)
    const thread = await guest.thread(path('/contributions'))
    expect(thread.body.contributions.length).toBeGreaterThan(20)
    expect(thread.body.checks[0]).toMatchObject({ have: 1, met: true })
    // students of the home answer a guest, and that counts as a classmate answered
    const liv = await world.as('liv')
    const before = (await liv.thread(path('/contributions'))).body.checks[1]!.have
    await liv.send('POST', path('/contributions'), {
      key: v7(),
      parentId: posted.body.id,
      doc: doc(words(70)),
    })
    expect((await liv.thread(path('/contributions'))).body.checks[1]!.have).toBe(before + 1)
    const ines = await world.as('ines')
    const [enrolment] = await world.db
      .select({ id: t.enrolments.id })
      .from(t.enrolments)
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
      .where(and(eq(t.enrolments.seminarId, other.id), eq(t.persons.email, email('guest'))))
    expect((await ines.send('GET', path(`/records/${enrolment!.id}`))).status).toBe(200)
    // but nothing else of the home is open to them
    expect((await guest.send('GET', `/api/seminars/${world.seminar.id}`)).status).toBe(404)
    expect((await guest.send('GET', `/api/activities/${world.breakwater.id}`)).status).toBe(404)
    expect((await guest.send('GET', path('/plan'))).status).toBe(404)
  })

  it('keeps what a guest wrote when the seminars part again', async () => {
    expect((await change('ines', { jointSeminarIds: [] })).status).toBe(200)
    const guest = await world.as('guest')
    expect((await guest.send('GET', path())).status).toBe(404)
    const liv = await world.as('liv')
    const thread = await liv.thread(path('/contributions'))
    expect(thread.body.contributions.some(c => c.view === 'whole' && c.author.name === 'Gudrun Guest')).toBe(
      true,
    )
  })
})
