import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { type RichNode } from '#core/contributing/richText'
import type { Overlaps, PageView, VersionView, WikiShares, WikiView } from '#shared/kinds/wiki/wiki'
import type { Client } from '#server/testing/server'
import { doc, testWorld, type World } from '#server/testing/world'

type Refused = {
  readonly code: string
  readonly detail: string
  readonly fields?: Record<string, string>
  readonly theirs?: Overlaps
}
type Saved = { readonly number: number; readonly id: string; readonly joined: boolean } & Refused

describe('the life of a wiki', () => {
  let world: World
  const clients = new Map<string, Promise<Client>>()
  const as = (key: string): Promise<Client> => {
    const client = clients.get(key) ?? world.as(key)
    clients.set(key, client)
    return client
  }
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())

  const GROUP = 'Port Amara' // malin, laleh, nico, mireille
  const at = async (title: string, group = GROUP) => world.page(world.city.id, group, title)
  const read = async (who: string, id: string) =>
    (await (await as(who)).json<PageView>('GET', `/api/pages/${id}`)).body
  const wiki = async (who: string, group?: string) =>
    (
      await (
        await as(who)
      ).json<WikiView>('GET', `/api/activities/${world.city.id}/wiki${group ? `?group=${group}` : ''}`)
    ).body
  const save = async (who: string, id: string, text: string | RichNode, base: number, more: object = {}) =>
    (await as(who)).json<Saved>('POST', `/api/pages/${id}/versions`, {
      key: v7(),
      doc: typeof text === 'string' ? doc(...text.split('\n')) : text,
      base,
      ...more,
    })
  const shares = async (groupId: string, who = 'ines') =>
    (
      await (
        await as(who)
      ).json<WikiShares>('GET', `/api/activities/${world.city.id}/wiki/shares?group=${groupId}`)
    ).body
  const make = async (who: string, title: string, group = GROUP) => {
    const groupId = (await at(group === GROUP ? 'Port Amara' : 'The chain', group)).groupId
    const made = await (
      await as(who)
    ).json<{ id: string }>('POST', `/api/activities/${world.city.id}/wiki/pages`, {
      id: v7(),
      groupId,
      title,
      parentId: null,
    })
    expect(made.status).toBe(200)
    return made.body.id
  }

  it('brings an earlier version back with its authors, keeps renamed and removed pages findable, and lets nobody cut the history', async () => {
    const id = await make('malin', 'Old name')
    await save('malin', id, 'Malin wrote this line first of all.', 0)
    await save('laleh', id, 'Laleh replaced everything that stood here.', 1)
    expect(
      (
        await (
          await as('nico')
        ).json<Saved>('POST', `/api/pages/${id}/versions/1/restore`, { key: v7(), base: 1 })
      ).status,
    ).toBe(409)
    expect(
      (
        await (
          await as('nico')
        ).json<Saved>('POST', `/api/pages/${id}/versions/1/restore`, { key: v7(), base: 2 })
      ).body.number,
    ).toBe(3)
    const page = await read('malin', id)
    expect(page.versions[0]).toMatchObject({ restores: 1, written: 0, author: { givenName: 'Nico' } })
    const third = (await (await as('malin')).json<VersionView>('GET', `/api/pages/${id}/versions/3`)).body
    expect(new Set(third.origins.map(o => o[0]))).toEqual(new Set([page.versions[2]!.id])) // Malin's words again, not Nico's
    // the routes of a talk do not reach into it
    const version = page.versions[1]!.id
    const laleh = await as('laleh')
    expect(
      (await laleh.json<Refused>('PUT', `/api/contributions/${version}/withdrawn`, { withdrawn: true })).body
        .code,
    ).toBe('version')
    expect(
      (
        await laleh.json<Refused>('PATCH', `/api/contributions/${version}`, {
          key: v7(),
          doc: doc('Another.'),
          baseVersion: 1,
        })
      ).body.code,
    ).toBe('version')
    expect(
      (
        await laleh.json<Refused>('POST', `/api/activities/${world.city.id}/contributions`, {
          key: v7(),
          parentId: null,
          doc: doc('A post.'),
        })
      ).body.code,
    ).toBe('onPages')
    // links to the old name still arrive
    await save(
      'nico',
      await make('nico', 'Linking'),
      {
        type: 'doc',
        content: [
          {
            type: 'paragraph',
            content: [
              { type: 'text', text: 'see', marks: [{ type: 'pageLink', attrs: { title: 'old  NAME' } }] },
              { type: 'text', text: ' and ' },
              { type: 'text', text: 'this', marks: [{ type: 'pageLink', attrs: { title: 'Not there' } }] },
            ],
          },
        ],
      },
      0,
    )
    expect((await laleh.send('PATCH', `/api/pages/${id}`, { title: 'New name' })).status).toBe(200)
    const view = await wiki('laleh')
    expect(view.pages.find(p => p.id === id)!.formerKeys).toContain('old name')
    expect(view.wanted.map(w => w.title)).toContain('Not there')
    expect(view.wanted.map(w => w.title)).not.toContain('old  NAME')
    expect(
      (await laleh.json<Refused>('PATCH', `/api/pages/${id}`, { title: 'The two moles' })).body.code,
    ).toBe('taken')
    const below = (await at('The two moles')).id
    const top = (await at('Port Amara')).id
    expect(
      (
        await laleh.json<Refused>('PATCH', `/api/pages/${top}`, {
          place: { parentId: below, beforeId: null },
        })
      ).body.code,
    ).toBe('belowItself')
    expect((await laleh.send('PUT', `/api/pages/${id}/removed`, { removed: true })).status).toBe(200)
    expect((await laleh.send('GET', `/api/pages/${id}`)).status).toBe(404)
    expect((await laleh.send('PUT', `/api/pages/${id}/removed`, { removed: false })).status).toBe(200)
    expect((await read('laleh', id)).number).toBe(3)
  })

  it('keeps a group that has written, and a wiki a wiki', async () => {
    const ines = await as('ines')
    const base = `/api/seminars/${world.seminar.id}/groups`
    const plan = (
      await ines.json<{
        plans: Array<{
          id: string
          title: string
          version: number
          selfJoin: boolean
          most: number | null
          groups: Array<{ id: string; title: string; memberIds: string[] }>
        }>
      }>('GET', base)
    ).body.plans.find(p => p.title === 'City pages')!
    const without = await ines.json<Refused>('PUT', `${base}/${plan.id}`, {
      key: v7(),
      baseVersion: plan.version,
      title: plan.title,
      selfJoin: plan.selfJoin,
      most: plan.most,
      groups: plan.groups.filter(g => g.title !== 'Sundvik'),
    })
    expect(without).toMatchObject({ status: 422, body: { code: 'hasPages' } })
    const view = (await ines.json<{ version: number }>('GET', `/api/activities/${world.city.id}/plan`)).body
    expect(
      (
        await ines.json<Refused>('PATCH', `/api/activities/${world.city.id}/plan`, {
          key: v7(),
          baseVersion: view.version,
          change: { kind: 'discussion', rules: [] },
          tell: false,
        })
      ).body.fields,
    ).toMatchObject({ kind: expect.stringContaining('stays a wiki') })
    // nor does a page lose its readers by whom the wiki is for
    const change = async (audience: object) =>
      ines.json<Refused>('PATCH', `/api/activities/${world.city.id}/plan`, {
        key: v7(),
        baseVersion: view.version,
        change: { audience, rules: [] },
        tell: false,
      })
    expect((await change({ kind: 'everyone' })).body.fields).toMatchObject({
      audience: expect.stringContaining('nobody could read them'),
    })
    expect(
      (await change({ kind: 'groups', groupPlanId: plan.id, groupIds: [plan.groups[0]!.id] })).body.fields,
    ).toMatchObject({ audience: expect.stringContaining('none of these groups') })
  })

  it('is one wiki for the class where it is for everyone', async () => {
    const ines = await as('ines')
    const activityId = v7()
    expect(
      (
        await ines.send('POST', `/api/seminars/${world.seminar.id}/activities`, {
          id: activityId,
          kind: 'wiki',
          week: 6,
          unitId: null,
          templateId: null,
        })
      ).status,
    ).toBe(200)
    const draft = (await ines.json<{ version: number }>('GET', `/api/activities/${activityId}/plan`)).body
    expect(
      (
        await ines.send('POST', `/api/activities/${activityId}/publish`, {
          key: v7(),
          baseVersion: draft.version,
          opens: 'now',
          tell: false,
        })
      ).status,
    ).toBe(200)
    const view = async (who: string) =>
      (await (await as(who)).json<WikiView>('GET', `/api/activities/${activityId}/wiki`)).body
    expect(await view('paz')).toMatchObject({
      groupId: null,
      wikis: [],
      pages: [],
      may: { write: true, comment: true },
      missing: null,
    })
    const id = v7()
    expect(
      (
        await (
          await as('paz')
        ).send('POST', `/api/activities/${activityId}/wiki/pages`, {
          id,
          groupId: null,
          title: 'All of us',
          parentId: null,
        })
      ).status,
    ).toBe(200)
    expect((await save('paz', id, 'One line for all of us.', 0)).body.number).toBe(1)
    expect((await save('liv', id, 'One line for all of us.\nAnd another.', 1)).body.number).toBe(2)
    expect((await view('observer')).pages.map(p => p.title)).toEqual(['All of us'])
    expect((await view('observer')).may).toEqual({ write: false, comment: false })
    const counted = (
      await (await as('liv')).json<WikiShares>('GET', `/api/activities/${activityId}/wiki/shares`)
    ).body
    expect(counted.members.map(m => [m.member.givenName, m.standing])).toEqual([
      ['Paz', 6],
      ['Liv', 2],
    ])
    expect(
      (
        await (
          await as('liv')
        ).send('POST', `/api/activities/${activityId}/wiki/pages`, {
          id: v7(),
          groupId: (await at('Port Amara')).groupId,
          title: 'Elsewhere',
          parentId: null,
        })
      ).status,
    ).toBe(404)
  })

  it('lets one member claim a page, and says when two want it', async () => {
    const id = await make('malin', 'Unclaimed')
    const claim = async (who: string, claimed: boolean) =>
      (await (await as(who)).send('PUT', `/api/pages/${id}/claimed`, { claimed })).status
    const both = await Promise.all([claim('laleh', true), claim('nico', true)])
    expect(both.sort()).toEqual([200, 409])
    const owner = (await wiki('malin')).pages.find(p => p.id === id)!.claimedBy!.givenName.toLowerCase()
    expect(await claim('malin', false)).toBe(403)
    expect(await claim(owner, false)).toBe(200)
    // what is asked of a member: a page of their own, so many words of it theirs, and revised after a comment
    const [rule] = (await (await as('liv')).thread(`/api/activities/${world.city.id}/contributions`)).body
      .checks
    expect(rule).toMatchObject({ need: 1 })
    const checks = async (who: string) =>
      (await (await as(who)).thread(`/api/activities/${world.city.id}/contributions`)).body.checks
    expect((await checks('malin'))[0]!.met).toBe(true)
    expect((await checks('jonas'))[0]!.met).toBe(false)
  })

  it('leaves a practice student’s trial out of everybody’s wiki and counts', async () => {
    const ines = await world.as('ines')
    const groupId = (await at('Port Amara')).groupId!
    const before = JSON.stringify([
      (await wiki('malin')).pages.map(p => p.title),
      (await shares(groupId, 'henrik')).words,
    ])
    expect(
      (await ines.send('PUT', `/api/seminars/${world.seminar.id}/students-eye`, { on: true })).status,
    ).toBe(200)
    const own = (await ines.json<WikiView>('GET', `/api/activities/${world.city.id}/wiki`)).body
    expect(own).toMatchObject({
      groupId: null,
      title: 'Your trial',
      may: { write: true, comment: true },
      pages: [],
    })
    const id = v7()
    expect(
      (
        await ines.send('POST', `/api/activities/${world.city.id}/wiki/pages`, {
          id,
          groupId: null,
          title: 'Port Amara',
          parentId: null,
        })
      ).status,
    ).toBe(200)
    expect(
      (
        await ines.json<Saved>('POST', `/api/pages/${id}/versions`, {
          key: v7(),
          doc: doc('A trial of mine.'),
          base: 0,
        })
      ).body.number,
    ).toBe(1)
    expect((await (await as('malin')).send('GET', `/api/pages/${id}`)).status).toBe(404)
    expect(
      JSON.stringify([
        (await wiki('malin')).pages.map(p => p.title),
        (await shares(groupId, 'henrik')).words,
      ]),
    ).toBe(before)
    await ines.send('PUT', `/api/seminars/${world.seminar.id}/students-eye`, { on: false })
  })
})
