import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { GroupsView } from '#shared/people/groups'
const key = () => v7()

describe('groups of a seminar', () => {
  let world: World
  let ines: Client
  let base: string
  const view = async () => (await ines.json<GroupsView>('GET', base)).body
  const rules = (some = {}) => ({
    by: 'size',
    count: 4,
    together: [],
    apart: [],
    mixSections: true,
    seed: 5,
    ...some,
  })
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
    base = `/api/seminars/${world.seminar.id}/groups`
  })
  afterAll(() => world.close())

  it('are dealt with topics, and rules that contradict each other are named as the smallest such set', async () => {
    const id = async (who: string) => (await world.enrolment(who)).id
    const [liv, nico, kadri, emrys] = await Promise.all(['liv', 'nico', 'kadri', 'emrys'].map(id))
    const made = await ines.json<{ id: string }>('POST', base, {
      key: key(),
      title: 'Debate',
      rules: rules({ together: [[liv, kadri]], apart: [[nico, emrys]] }),
      topics: ['Dredge', 'Quay'],
      selfJoin: false,
      most: null,
    })
    expect(made.status).toBe(200)
    const plan = (await view()).plans.find(p => p.id === made.body.id)!
    expect(plan.groups.map(g => g.title)).toEqual([
      'Dredge',
      'Quay',
      'Dredge 2',
      'Quay 2',
      'Dredge 3',
      'Quay 3',
    ])
    expect(plan.groups.flatMap(g => g.memberIds)).toHaveLength(24)
    const of = (who: string) => plan.groups.findIndex(g => g.memberIds.includes(who))
    expect(of(liv!)).toBe(of(kadri!))
    expect(of(nico!)).not.toBe(of(emrys!))
    const before = await world.db.$count(t.groupPlans)
    const refused = await ines.json<{ detail: string }>('POST', base, {
      key: key(),
      title: 'No',
      rules: rules({
        together: [
          [nico, emrys],
          [liv, kadri],
        ],
        apart: [
          [liv, nico],
          [kadri, liv],
        ],
      }),
      topics: [],
      selfJoin: false,
      most: null,
    })
    expect(refused.status).toBe(422)
    expect(refused.body.detail).toBe(
      'These contradict each other: keep Liv Brandt and Kadri Ilves together; keep Kadri Ilves and Liv Brandt apart. Take one of them off.',
    )
    expect(await world.db.$count(t.groupPlans)).toBe(before)
  })

  it('are joined by students up to the limit, of two for the last place by one', async () => {
    const { body } = await ines.json<{ id: string }>('POST', base, {
      key: key(),
      title: 'Walks',
      rules: rules({ by: 'number', count: 2 }),
      topics: [],
      selfJoin: true,
      most: 1,
    })
    const group = (await view()).plans.find(p => p.id === body.id)!.groups[0]!
    const students = await Promise.all(['liv', 'kadri', 'oona'].map(k => world.as(k)))
    const statuses = (
      await Promise.all(students.map(s => s.send('PUT', `${base}/${body.id}/mine`, { groupId: group.id })))
    ).map(a => a.status)
    expect(statuses.sort()).toEqual([200, 409, 409])
    expect((await view()).plans.find(p => p.id === body.id)!.groups[0]!.memberIds).toHaveLength(1)
    const closed = (await view()).plans.find(p => p.title === 'City pages')!
    expect((await students[0]!.send('PUT', `${base}/${closed.id}/mine`, { groupId: null })).status).toBe(403)
  })

  it("are not saved over somebody else's change, nor with somebody in two of them", async () => {
    const plan = (await view()).plans.find(p => p.title === 'City pages')!
    const write = {
      key: key(),
      baseVersion: plan.version,
      title: plan.title,
      selfJoin: false,
      most: null,
      groups: plan.groups,
    }
    expect((await ines.send('PUT', `${base}/${plan.id}`, write)).status).toBe(200)
    expect((await ines.send('PUT', `${base}/${plan.id}`, { ...write, key: key() })).status).toBe(409)
    const twice = plan.groups.map((g, i) =>
      i === 1 ? { ...g, memberIds: [...g.memberIds, plan.groups[0]!.memberIds[0]!] } : g,
    )
    expect(
      (
        await ines.send('PUT', `${base}/${plan.id}`, {
          ...write,
          key: key(),
          baseVersion: plan.version + 1,
          groups: twice,
        })
      ).status,
    ).toBe(422)
    expect((await ines.send('DELETE', `${base}/${plan.id}`)).status).toBe(409) // City pages is for them
  })

  it('of three to four are dealt within that, and rules can be changed and stay while people are moved', async () => {
    const [liv, nico] = await Promise.all(['liv', 'nico'].map(async who => (await world.enrolment(who)).id))
    const made = await ines.json<{ id: string }>('POST', base, {
      key: key(),
      title: 'Pairs',
      rules: rules({ count: 3, upTo: 4, apart: [[liv, nico]] }),
      topics: [],
      selfJoin: false,
      most: null,
    })
    const plan = async () => (await view()).plans.find(p => p.id === made.body.id)!
    const { groups, version } = await plan()
    expect(groups.flatMap(g => g.memberIds)).toHaveLength(24)
    expect(groups.every(g => g.memberIds.length === 4)).toBe(true)
    // somebody is moved against the rule, and the rules are changed with it; then moved without a word of them
    const next = groups.map(g => ({ ...g, memberIds: g.memberIds.filter(id => id !== liv) }))
    next.find(g => g.memberIds.includes(nico!))!.memberIds.push(liv!)
    const save = (baseVersion: number, some: object) =>
      ines.send('PUT', `${base}/${made.body.id}`, {
        key: key(),
        baseVersion,
        title: 'Pairs',
        selfJoin: false,
        most: null,
        groups: next,
        ...some,
      })
    const both = { together: [[liv, nico]], apart: [] }
    expect((await save(version, { rules: both })).status).toBe(200)
    expect((await save(version + 1, {})).status).toBe(200)
    expect((await plan()).rules).toMatchObject({ ...both, by: 'size', count: 3, upTo: 4 })
    expect((await ines.send('DELETE', `${base}/${made.body.id}`)).status).toBe(200)
  })

  it('keep what somebody wrote theirs when they are moved', async () => {
    const plan = (await view()).plans.find(p => p.title === 'City pages')!
    const [mover] = plan.groups[0]!.memberIds
    const [city] = await world.db.select().from(t.activities).where(eq(t.activities.title, 'City pages'))
    const work = async () =>
      (await view()).plans.find(p => p.id === plan.id)!.work.find(w => w.enrolmentId === mover)
    const before = (await work())?.contributions ?? 0
    const [row] = await world.db
      .insert(t.contributions)
      .values({
        seminarId: world.seminar.id,
        activityId: city!.id,
        authorId: mover!,
        type: 'pageVersion',
        state: 'shown',
        doc: { type: 'doc' },
        html: '',
        text: 'A page',
        words: 2,
        shownAt: new Date(),
      })
      .returning()
    expect(await work()).toEqual({ enrolmentId: mover, activity: 'City pages', contributions: before + 1 })
    const groups = plan.groups.map((g, i) => {
      const membersOf = () => {
        if (i === 0) return g.memberIds.slice(1)
        if (i === 1) return [...g.memberIds, mover!]
        return g.memberIds
      }
      return {
        ...g,
        memberIds: membersOf(),
      }
    })
    await ines.send('PUT', `${base}/${plan.id}`, {
      key: key(),
      baseVersion: plan.version,
      title: plan.title,
      selfJoin: false,
      most: null,
      groups,
    })
    expect(
      (await world.db.select().from(t.contributions).where(eq(t.contributions.id, row!.id)))[0],
    ).toMatchObject({ authorId: mover, activityId: city!.id, state: 'shown' })
  })
})
