import { request } from 'node:http'
import { and, eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { USUAL_REVIEW, reviewOf, type ReviewSettings } from '#core/kinds/review/reviewSettings'
import type { OwnReviews, ReviewDesk } from '#shared/kinds/review/review'
import type { PeersView, TakeAnswer } from '#shared/marking/peers'
import type { RecordView } from '#shared/marking/desk'
import * as t from '#server/database/schema'
import { testDatabase } from '#server/testing/database'
import { Client, testServer } from '#server/testing/server'
import { until } from '#server/testing/until'
import { doc, email, testWorld, words, type World } from '#server/testing/world'

type Refused = { readonly code: string; readonly detail: string; readonly fields: Record<string, string> }

describe('reviews in groups', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())

  it('let nothing of teammates go in until all of it is there, and share the group’s points as the instructor decides', async () => {
    const settings = reviewOf(world.teammates.settings)
    // one group begins anew, and reading is open again
    const [ines, nico] = await Promise.all([world.as('ines'), world.as('nico')])
    const base = `/api/activities/${world.teammates.id}`
    const me = await world.enrolment('nico')
    const given = await world.db.select().from(t.allocations).where(eq(t.allocations.reviewerId, me.id))
    const mates = given.filter(a => a.activityId === world.teammates.id)
    expect(mates).toHaveLength(4)
    for (const a of mates) {
      await world.db
        .update(t.allocations)
        .set({ state: 'owed', reviewId: null, openedAt: null, handedInAt: null })
        .where(eq(t.allocations.id, a.id))
      await world.db
        .update(t.contributions)
        .set({ state: 'withdrawn' })
        .where(eq(t.contributions.id, a.reviewId!))
    }
    await world.db
      .update(t.peerReviews)
      .set({ releasedAt: null })
      .where(eq(t.peerReviews.activityId, world.teammates.id))
    const own = async () => (await nico.json<OwnReviews>('GET', `${base}/reviews`)).body
    const list = (await own()).given
    expect(list.map(g => g.kind).sort()).toEqual(['self', 'teammate', 'teammate', 'teammate'])
    const write = async (id: string) => {
      const desk = (await nico.json<ReviewDesk>('GET', `/api/reviews/${id}`)).body
      return nico.send('PUT', `/api/reviews/${id}`, {
        points: Object.fromEntries(desk.criteria.map(c => [c.id, 300])),
        remarks: {},
        answers: Object.fromEntries(desk.questions.map(q => [q.id, 'They held it all together for us'])),
        passages: [],
        private: '',
        baseVersion: null,
      })
    }
    for (const g of list.slice(0, 3)) expect((await write(g.id)).status).toBe(200)
    const early = await nico.json<Refused>('POST', `/api/reviews/${list[0]!.id}/in`, { key: v7() })
    expect([early.body.code, early.body.detail.includes('one of them still lacks')]).toEqual([
      'lacking',
      true,
    ])
    expect((await own()).given.every(g => g.state !== 'in')).toBe(true)
    // what is begun is not a draft of the talk, to be discarded there
    await nico.send('DELETE', `${base}/draft`, { parentId: null, slot: list[0]!.id })
    expect((await own()).given.find(g => g.id === list[0]!.id)).toMatchObject({ state: 'begun', missing: 0 })
    expect((await write(list[3]!.id)).status).toBe(200)
    expect(
      (await nico.json<{ handedIn: number }>('POST', `/api/reviews/${list[0]!.id}/in`, { key: v7() })).body
        .handedIn,
    ).toBe(4)
    expect((await own()).given.every(g => g.state === 'in')).toBe(true)

    // the group's points are multiplied, and a returned letter stays what it was until the next return
    const walls = settings.sharesOf!
    const target = mates.find(a => a.subjectId !== me.id)!.subjectId
    const before = (await ines.json<RecordView>('GET', `/api/activities/${walls}/records/${target}`)).body
    expect(before.mark).toMatchObject({ state: 'returned', factor: null })
    const share = async (factor: number | null) =>
      ines.json<TakeAnswer & Refused>('POST', `${base}/peers/shares`, {
        key: v7(),
        factors: [{ enrolmentId: target, factor }],
      })
    expect((await share(150)).body.fields.factors).toContain('from 0.8 to 1.1')
    expect((await share(80)).body.taken).toEqual([target])
    const after = (await ines.json<RecordView>('GET', `/api/activities/${walls}/records/${target}`)).body
    const groupPoints = before
      .rubric!.criteria.filter(c => c.scope === 'group')
      .reduce((s, c) => s + before.mark.steps.find(x => x.criterionId === c.id)!.points, 0)
    expect(after.mark).toMatchObject({ state: 'held', factor: 80 })
    expect(before.mark.points - after.mark.points).toBeCloseTo(groupPoints * 0.2, -2)
    expect((await share(null)).status).toBe(200)
    expect(
      (await ines.json<RecordView>('GET', `/api/activities/${walls}/records/${target}`)).body.mark.points,
    ).toBe(before.mark.points)
    const view = (await ines.json<PeersView>('GET', `${base}/peers`)).body
    expect(view.groups).toHaveLength(6)
    expect(view.shares!.activityId).toBe(walls)
    // what each share would make of a mark is what it does make of it
    const { pointsAt } = view.shares!.marks.find(m => m.enrolmentId === target)!
    expect([pointsAt![0], pointsAt![20], pointsAt!.length]).toEqual([
      after.mark.points,
      before.mark.points,
      31,
    ])
  })

  it('give marks of their own by the mean of what teammates gave, an unfair one left out', async () => {
    const ines = await world.as('ines')
    const [mates] = await world.db.select().from(t.activities).where(eq(t.activities.id, world.teammates.id))
    const path = `/api/activities/${mates!.id}/peers`
    await world.db
      .update(t.activities)
      .set({ points: 2000, pointStep: 1, scale: 'points' })
      .where(eq(t.activities.id, mates!.id))
    const view = async () => (await ines.json<PeersView>('GET', path)).body
    const before = await view()
    const received = (id: string) =>
      before.allocations.filter(a => a.subjectId === id && a.reviewerId !== id && a.state === 'in')
    const of = before.groups.flatMap(g => g.memberIds).find(id => received(id).length > 1)!
    const [unfair, ...fair] = received(of)
    expect(
      (
        await ines.send('PUT', `${path}/allocations/${unfair!.id}`, {
          ...{ as: 'setAside', reason: 'It settles a quarrel.', countsAsDone: true, tell: false },
        })
      ).status,
    ).toBe(200)
    const take = (method: string) =>
      ines.json<TakeAnswer>(method, `${path}/take`, { key: v7(), enrolmentIds: [of] })
    expect((await take('POST')).body).toEqual({ taken: [of], left: [] })
    const { mark } = (await ines.json<RecordView>('GET', `/api/activities/${mates!.id}/records/${of}`)).body
    expect(mark).toMatchObject({ state: 'held', takenFrom: 'consensus' })
    for (const { criterionId, points } of mark.steps)
      expect(points).toBe(Math.round(fair.reduce((sum, a) => sum + a.points[criterionId]!, 0) / fair.length))
    expect((await take('DELETE')).body.taken).toEqual([of])
    expect((await view()).marks.find(m => m.enrolmentId === of)).toEqual(
      before.marks.find(m => m.enrolmentId === of),
    )
  })

  it('take one hand-in for each group, and deal it to nobody in it', async () => {
    const [plan] = await world.db.select().from(t.groupPlans).where(eq(t.groupPlans.title, 'City pages'))
    const members = await world.db
      .select({ groupId: t.groupMembers.groupId, id: t.groupMembers.enrolmentId, email: t.persons.email })
      .from(t.groupMembers)
      .innerJoin(t.enrolments, eq(t.enrolments.id, t.groupMembers.enrolmentId))
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
      .where(eq(t.groupMembers.groupPlanId, plan!.id))
    const past = (hours: number) => new Date(Date.parse('2026-10-14T08:20:00Z') - hours * 3_600_000)
    const review: ReviewSettings = { ...USUAL_REVIEW, each: 2, byGroup: true }
    await world.db
      .update(t.activities)
      .set({
        state: 'published',
        opensAt: past(100),
        audience: { kind: 'groups', groupPlanId: plan!.id, groupIds: [] },
        settings: { writeFirst: false, editMinutes: 30, review },
      })
      .where(eq(t.activities.id, world.essays.id))
    await world.db
      .update(t.phases)
      .set({ startsAt: past(100), endsAt: past(-10) })
      .where(eq(t.phases.activityId, world.essays.id))
    const base = `/api/activities/${world.essays.id}`
    const groups = [...new Set(members.map(m => m.groupId))]
    for (const g of groups) {
      const [one, two] = members.filter(m => m.groupId === g)
      const first = await world.as(one!.email.split('@')[0]!)
      expect(
        (
          await first.send('POST', `${base}/contributions`, {
            key: v7(),
            parentId: null,
            doc: doc(words(60)),
          })
        ).status,
      ).toBe(200)
      const second = await (
        await world.as(two!.email.split('@')[0]!)
      ).json<Refused>('POST', `${base}/contributions`, { key: v7(), parentId: null, doc: doc(words(60)) })
      expect(second.body.fields.doc).toContain('has handed in for your group already')
    }
    await world.db
      .update(t.phases)
      .set({ startsAt: past(100), endsAt: past(20) })
      .where(eq(t.phases.activityId, world.essays.id))
    const ines = await world.as('ines')
    expect((await ines.send('POST', `${base}/peers/deal`, { key: v7(), seed: 5 })).status).toBe(200)
    const view = (await ines.json<PeersView>('GET', `${base}/peers`)).body
    expect(view.works).toHaveLength(groups.length)
    const groupOf = new Map(members.map(m => [m.id, m.groupId]))
    for (const a of view.allocations) expect(groupOf.get(a.reviewerId)).not.toBe(groupOf.get(a.subjectId))
    for (const w of view.works)
      expect(view.allocations.filter(a => a.entryId === w.id)).toHaveLength(
        (2 * members.length) / groups.length,
      )
  })
})

describe('handing in at the last second', () => {
  it('counts by the start of a slow upload that follows it at once, and by nothing else', async () => {
    const database = await testDatabase()
    const server = await testServer(database.url, { JOVREL_NOW: '' }) // a clock that runs
    try {
      const [activity] = await database.db
        .select()
        .from(t.activities)
        .where(eq(t.activities.title, 'Draft essays'))
      const [liv, nico] = await Promise.all(
        ['liv', 'nico'].map(key => new Client(server.address).signIn(email(key))),
      )
      const hour = 3_600_000
      let ends = new Date(Date.now() + hour)
      await database.db
        .update(t.activities)
        .set({
          state: 'published',
          opensAt: new Date(Date.now() - hour),
          settings: { writeFirst: false, editMinutes: 30, review: { ...USUAL_REVIEW, late: 'refused' } },
        })
        .where(eq(t.activities.id, activity!.id))
      await database.db.delete(t.phases).where(eq(t.phases.activityId, activity!.id))
      const ids = { seminarId: activity!.seminarId, activityId: activity!.id }
      await database.db.insert(t.phases).values([
        { ...ids, name: 'write', startsAt: new Date(Date.now() - hour), endsAt: ends, position: 0 },
        {
          ...ids,
          name: 'review',
          startsAt: new Date(ends.getTime() + hour),
          endsAt: new Date(ends.getTime() + 2 * hour),
          position: 1,
        },
      ])
      const fileId = v7()
      const png = Buffer.concat([Buffer.from('89504e470d0a1a0a', 'hex'), Buffer.alloc(40_000)]).toString(
        'base64',
      )
      const body = JSON.stringify({ id: fileId, name: 'essay.png', base64: png, transcript: null })
      const endHandIn = async () => {
        ends = new Date(Date.now() + 500)
        await database.db
          .update(t.phases)
          .set({ endsAt: ends })
          .where(and(eq(t.phases.activityId, activity!.id), eq(t.phases.name, 'write')))
        await until('the end of hand-in', async () => Date.now() > ends.getTime() + 500, 30)
      }
      // the upload begins in time, as the server's going on says; the line is slow, and its last byte comes when hand-in is over
      const uploaded = new Promise<number>((resolve, reject) => {
        const slow = request(
          `${server.address}/api/activities/${activity!.id}/files`,
          {
            method: 'POST',
            headers: {
              'content-type': 'application/json',
              'content-length': Buffer.byteLength(body),
              origin: server.address,
              cookie: liv!.cookies,
              expect: '100-continue',
            },
          },
          answer => {
            answer.resume()
            answer.on('end', () => resolve(answer.statusCode!))
          },
        )
        slow.on('error', reject)
        slow.on('continue', () => {
          slow.write(body.slice(0, 1000))
          void endHandIn().then(() => slow.end(body.slice(1000)), reject)
        })
        slow.flushHeaders()
      })
      expect(await uploaded).toBe(200)
      const late = await nico!.json<Refused>('POST', `/api/activities/${activity!.id}/contributions`, {
        key: v7(),
        parentId: null,
        doc: doc(words(80)),
      })
      expect([late.status, late.body.fields.doc]).toEqual([
        422,
        'Hand-in has ended, and late work is not taken here. Your text is kept; write to your instructor about it.',
      ])
      const inTime = await liv!.json<{ shownAt: string } & Refused>(
        'POST',
        `/api/activities/${activity!.id}/contributions`,
        { key: v7(), parentId: null, doc: doc('My essay is in the file.'), fileIds: [fileId] },
      )
      expect([inTime.status, inTime.body.detail]).toEqual([200, undefined])
      expect(new Date(inTime.body.shownAt).getTime()).toBeLessThanOrEqual(ends.getTime())
    } finally {
      await server.stop()
      await database.drop()
    }
  })
})
