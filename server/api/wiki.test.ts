import { and, eq } from 'drizzle-orm'
import { strFromU8, unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { plainText, type RichNode } from '#core/contributing/richText'
import { countWords } from '#core/contributing/measureText'
import type { LiveEvent, ThreadView } from '#shared/contributing/thread'
import type { Overlaps, PageView, VersionView, WikiShares, WikiView } from '#shared/contributing/wiki'
import type { Found } from '#shared/planning/find'
import type { RecordView } from '#shared/marking/desk'
import * as t from '#server/database/schema'
import { listenTo } from '#server/testing/listenTo'
import type { Client } from '#server/testing/server'
import { until } from '#server/testing/until'
import { doc, testWorld, type World } from '#server/testing/world'

type Refused = {
  readonly code: string
  readonly detail: string
  readonly fields?: Record<string, string>
  readonly theirs?: Overlaps
}
type Saved = { readonly number: number; readonly id: string; readonly joined: boolean } & Refused

describe('a wiki written by groups', () => {
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
  const phase = (name: 'write' | 'respond' | 'revise', hours: number) =>
    world.db.transaction(async tx => {
      await tx.delete(t.phases).where(eq(t.phases.activityId, world.city.id))
      const now = Date.parse('2026-10-14T08:20:00Z')
      await tx.insert(t.phases).values({
        seminarId: world.seminar.id,
        activityId: world.city.id,
        name,
        startsAt: world.city.opensAt,
        endsAt: new Date(now + hours * 3_600_000),
        position: 0,
      })
    })

  it('takes 200 saves of one page at once: every acknowledged word is in a version, history is one line, authorship is whole', async () => {
    const id = await make('malin', 'At once')
    const lines = Array.from(
      { length: 40 },
      (_, i) => `Paragraph ${i} says something of its own about place ${i * 7}.`,
    )
    expect((await save('malin', id, lines.join('\n'), 0)).body.number).toBe(1)
    const writers = ['malin', 'laleh', 'nico', 'mireille', 'ines']
    const conflicts: number[] = []
    const acknowledged = await Promise.all(
      Array.from({ length: 200 }, async (_, n) => {
        const who = writers[n % writers.length]!
        const word = `word${n}x`
        // most put a word into a paragraph of their own, every eighth changes the same words of one paragraph
        const text = lines
          .map((l, i) => {
            if (n % 8 === 7) return i === 0 ? l.replace('something of its own', `something ${word}`) : l
            if (i === n % 40) return `${l} Then ${word}.`
            return l
          })
          .join('\n')
        const key = v7()
        let body = { key, doc: doc(...text.split('\n')), base: 1, chosen: [] as object[] }
        for (;;) {
          const answer = await (await as(who)).json<Saved>('POST', `/api/pages/${id}/versions`, body)
          if (answer.status === 200)
            return { word, number: answer.body.number, body, who, id: answer.body.id }
          expect(answer.body.code, answer.body.detail).toBe('overlaps')
          conflicts.push(n)
          body = { ...body, chosen: answer.body.theirs!.overlaps.map(o => ({ ...o, choice: 'both' })) }
        }
      }),
    )
    expect(conflicts.length).toBeGreaterThan(10) // true overlaps were put to their writers
    const page = await read('ines', id)
    expect(page.versions.map(v => v.number)).toEqual(
      Array.from({ length: page.number }, (_, i) => page.number - i),
    )
    expect(new Set(acknowledged.map(a => a.number)).size).toBe(200)
    const texts = new Map<number, VersionView>()
    for (let n = 1; n <= page.number; n++)
      texts.set(n, (await (await as('ines')).json<VersionView>('GET', `/api/pages/${id}/versions/${n}`)).body)
    for (const { word, number } of acknowledged) {
      expect(plainText(texts.get(number)!.doc as RichNode), word).toContain(word)
      expect(plainText(texts.get(page.number)!.doc as RichNode), `${word} at the end`).toContain(word) // nothing dropped what was there
    }
    // sent again after a lost answer, nothing is saved twice
    const again = await (
      await as(acknowledged[0]!.who)
    ).json<Saved>('POST', `/api/pages/${id}/versions`, acknowledged[0]!.body)
    expect(again.body.number).toBe(acknowledged[0]!.number)
    // every standing word has one author
    const all = await shares((await at('Port Amara')).groupId!)
    expect(all.members.reduce((sum, m) => sum + m.standing, 0) + all.others).toBe(all.words)
    const last = texts.get(page.number)!
    expect(last.origins.reduce((sum, [, n]) => sum + n, 0)).toBeGreaterThan(
      countWords(plainText(last.doc as RichNode)),
    )
    const known = new Set(all.authors.map(a => a.origin))
    for (const [origin] of last.origins) expect(known.has(origin)).toBe(true)
  })

  it('joins what two changed in different places, and puts the same words side by side to the second', async () => {
    const id = await make('malin', 'Two at once')
    await save('malin', id, 'The first mole is of stone.\nThe second is of timber.', 0)
    expect(
      (await save('laleh', id, 'The first mole is of old stone.\nThe second is of timber.', 1)).body,
    ).toMatchObject({ number: 2, joined: false })
    expect(
      (await save('nico', id, 'The first mole is of stone.\nThe second is of wet timber.', 1)).body,
    ).toMatchObject({ number: 3, joined: true })
    expect(plainText((await read('malin', id)).doc as RichNode)).toBe(
      'The first mole is of old stone.\nThe second is of wet timber.',
    )
    const clash = await save(
      'mireille',
      id,
      'The first mole is of borrowed stone.\nThe second is of timber.',
      1,
    )
    expect(clash).toMatchObject({
      status: 409,
      body: {
        code: 'overlaps',
        theirs: { by: ['Laleh', 'Nico'], overlaps: [{ was: '', mine: 'borrowed', theirs: 'old' }] },
      },
    })
    expect((await read('malin', id)).number).toBe(3) // nothing half written
    const text = 'The first mole is of borrowed stone.\nThe second is of timber.'
    const [shown] = clash.body.theirs!.overlaps
    // what was chosen was chosen between two wordings: once one of them is another, it is asked anew
    await save('nico', id, 'The first mole is of very old stone.\nThe second is of wet timber.', 3)
    const again = await save('mireille', id, text, 1, { chosen: [{ ...shown!, choice: 'mine' }] })
    expect(again.body.code).toBe('overlaps')
    // what is saved elsewhere on the page does not undo a choice
    await save('nico', id, 'The first mole is of very old stone.\nThe second is of very wet timber.', 4)
    expect(
      (
        await save('mireille', id, text, 1, {
          chosen: [{ ...again.body.theirs!.overlaps[0]!, choice: 'mine' }],
        })
      ).body.number,
    ).toBe(6)
    expect(plainText((await read('malin', id)).doc as RichNode)).toBe(
      'The first mole is of borrowed stone.\nThe second is of very wet timber.',
    )
    expect(
      (
        await save(
          'mireille',
          id,
          'The first mole is of borrowed stone.\nThe second is of very wet timber.',
          6,
        )
      ).body.code,
    ).toBe('nothingNew')
  })

  it('is its own group’s alone until the writing is over: pages, versions, shares, files out, pictures, and what open pages are told', async () => {
    const page = await at('The two moles')
    const paz = await as('paz')
    const [maker] = [await as('malin')]
    const fileId = v7()
    const pixel =
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
    expect(
      (
        await maker.send('POST', `/api/activities/${world.city.id}/files`, {
          id: fileId,
          name: 'moles.png',
          base64: pixel,
          transcript: null,
        })
      ).status,
    ).toBe(200)
    const before = await read('malin', page.id)
    const withPicture = {
      type: 'doc',
      content: [
        ...(before.doc as RichNode).content!,
        { type: 'image', attrs: { src: `/api/files/${fileId}`, alt: 'two moles' } },
      ],
    }
    // another's file cannot be put on one's page
    expect((await save('laleh', page.id, withPicture, before.number)).body.fields!.doc).toContain('picture')
    const stream = await listenTo(paz, world.city.id)
    const own = await listenTo(await as('nico'), world.city.id)
    expect((await save('malin', page.id, withPicture, before.number)).status).toBe(200)
    await until('Nico hears of it', async () =>
      own.heard.some((e: LiveEvent) => e.kind === 'page' && e.pageId === page.id),
    )
    expect(stream.raw()).not.toContain(page.id)
    await stream.close()
    await own.close()
    const addresses = [
      `/api/pages/${page.id}`,
      `/api/pages/${page.id}/versions/1`,
      `/api/activities/${world.city.id}/wiki/shares?group=${page.groupId}`,
      `/api/activities/${world.city.id}/wiki/export?as=site&group=${page.groupId}`,
      `/api/files/${fileId}`,
    ]
    for (const address of addresses) {
      expect((await paz.send('GET', address)).status, address).toBe(404)
      expect((await (await as('observer')).send('GET', address)).status, address).toBe(404)
      expect((await (await as('nico')).send('GET', address)).status, address).toBe(200)
      expect((await (await as('henrik')).send('GET', address)).status, address).toBe(200)
    }
    expect((await wiki('paz', page.groupId!)).missing).toBe('hidden')
    // whatever else of an activity can be fetched holds nothing of other groups
    const everything = await Promise.all(
      ['contributions', 'export?as=json', 'export?as=html', 'find?q=lightermen', 'look-alikes'].map(async p =>
        (await paz.send('GET', `/api/activities/${world.city.id}/${p}`)).text(),
      ),
    )
    everything.push(
      await (await paz.send('GET', `/api/seminars/${world.seminar.id}/find?q=lightermen`)).text(),
      await (await paz.send('GET', `/seminars/${world.seminar.id}/activities/${world.city.id}`)).text(),
    )
    expect(everything.join('\n')).not.toMatch(/carrying ashore|stair-master|nineteen of them/)
    expect((await read('nico', page.id)).html).toContain('carrying ashore') // the words looked for are there
    const found = (
      await (await as('nico')).json<Found>('GET', `/api/seminars/${world.seminar.id}/find?q=lightermen`)
    ).body.contributions.filter(c => c.page)
    expect(found).toEqual([
      expect.objectContaining({ title: 'The two moles', page: { id: page.id, groupId: page.groupId } }),
    ]) // once, however many versions say it
    await phase('write', -2)
    expect((await paz.send('GET', `/api/pages/${page.id}`)).status).toBe(200)
    expect((await save('paz', page.id, 'mine', before.number + 1)).status).toBe(422)
    await phase('write', 300)
  })

  it('keeps a draft for its writer alone, and asks where it was changed in another window', async () => {
    const page = await at('What to pay')
    const draft = async (text: string, baseVersion: number | null) =>
      (await as('mireille')).json<{ version: number } & Refused>('PUT', `/api/pages/${page.id}/draft`, {
        doc: doc(text),
        base: 4,
        baseVersion,
      })
    const first = await draft('Nobody but me may read these secretwords.', null)
    expect(first.status).toBe(200)
    expect((await draft('Another window.', null)).status).toBe(409)
    expect((await read('mireille', page.id)).draft).toMatchObject({ base: 4, version: first.body.version })
    const record = `/api/activities/${world.city.id}/records/${(await world.enrolment('mireille')).id}`
    for (const [who, paths] of [
      ['malin', [`/api/pages/${page.id}`, `/api/activities/${world.city.id}/wiki`]],
      [
        'ines',
        [
          `/api/pages/${page.id}`,
          record,
          `/api/activities/${world.city.id}/desk`,
          `/api/activities/${world.city.id}/contributions`,
        ],
      ],
    ] as const) {
      for (const path of paths)
        expect(await (await (await as(who)).send('GET', path)).text(), path).not.toContain('secretwords')
    }
    expect(
      (await (await as('ines')).json<RecordView>('GET', record)).body.draftsBegun.length,
    ).toBeGreaterThan(0) // staff see that there is one, and how long it is
    expect((await (await as('mireille')).send('DELETE', `/api/pages/${page.id}/draft`)).status).toBe(200)
    expect((await read('mireille', page.id)).draft).toBeNull()
  })

  it('honours the phases: pages rest while they are commented on, and once it is over nothing is added', async () => {
    const page = await at('Pilots and their oath')
    const { number } = await read('laleh', page.id)
    const comment = async (who = 'nico') =>
      (await as(who)).json<{ id: string } & Refused>('POST', `/api/pages/${page.id}/comments`, {
        key: v7(),
        doc: doc('Which step?'),
        passage: null,
        parentId: null,
      })
    await phase('respond', 5)
    expect((await wiki('laleh')).may).toEqual({ write: false, comment: true })
    expect((await save('laleh', page.id, 'Changed.', number)).body.fields!.doc).toContain(
      'rest while they are commented on',
    )
    expect((await comment()).status).toBe(200)
    await phase('revise', -1)
    expect((await save('laleh', page.id, 'Changed.', number)).body.code).toBe('notWriting')
    expect((await comment()).body.code).toBe('notCommenting')
    const { id } = await world.enrolment('nico')
    await (
      await as('ines')
    ).send('PUT', `/api/activities/${world.city.id}/extensions/${id}`, {
      dueAt: '2026-10-20T21:59:00Z',
      reason: 'ill',
    })
    expect((await comment()).status).toBe(200)
    expect((await comment('laleh')).status).toBe(422)
    await (await as('ines')).send('DELETE', `/api/activities/${world.city.id}/extensions/${id}`)
    await phase('write', 300)
  })

  it('says of a comment whose words it is on, and which version acted on it', async () => {
    const id = await make('malin', 'Talked about')
    await save('malin', id, 'The stair has eleven steps.', 0)
    await save('laleh', id, 'The stair has eleven steps. The ninth is dry.', 1)
    const groupId = (await at('Port Amara')).groupId!
    const before = await shares(groupId)
    const of = (all: WikiShares, name: string) => all.members.find(m => m.member.givenName === name)!
    const said = await (
      await as('nico')
    ).json<{ id: string } & Refused>('POST', `/api/pages/${id}/comments`, {
      key: v7(),
      doc: doc('At which tide?'),
      passage: { exact: 'The ninth is dry.', prefix: '', suffix: '' },
      parentId: null,
    })
    expect(said.status).toBe(200)
    expect(
      (
        await (
          await as('nico')
        ).json<Refused>('POST', `/api/pages/${id}/comments`, {
          key: v7(),
          doc: doc('Gone?'),
          passage: { exact: 'The tenth is wet.', prefix: '', suffix: '' },
          parentId: null,
        })
      ).body.fields!.passage,
    ).toContain('no longer on the page')
    let now = await shares(groupId)
    expect(of(now, 'Laleh').received).toBe(of(before, 'Laleh').received + 1) // on her words, though nobody claimed the page
    expect(of(now, 'Malin').received).toBe(of(before, 'Malin').received)
    expect(of(now, 'Nico').made).toBe(of(before, 'Nico').made + 1)
    const resolve = async (number: number | null) =>
      (await as('malin')).json<Refused>('PUT', `/api/contributions/${said.body.id}/resolved`, { number })
    expect((await resolve(2)).body.code).toBe('tooEarly')
    await save('malin', id, 'The stair has eleven steps. The ninth is dry at all tides but one.', 2)
    expect((await resolve(3)).status).toBe(200)
    now = await shares(groupId)
    expect(of(now, 'Laleh').actedOn).toBe(of(before, 'Laleh').actedOn + 1) // whoever saved it
    expect((await read('laleh', id)).comments[0]).toMatchObject({
      on: 2,
      resolved: { number: 3, writer: { givenName: 'Malin' } },
    })
    // saved with the version that acts on it, too; another group's comments are not to be had
    await resolve(null)
    await save('laleh', id, 'The stair has eleven steps. The ninth is dry at all tides but two.', 3, {
      actsOn: [said.body.id],
    })
    expect((await read('laleh', id)).comments[0]!.resolved!.number).toBe(4)
    expect(
      (await (await as('paz')).send('PUT', `/api/contributions/${said.body.id}/resolved`, { number: 3 }))
        .status,
    ).toBe(404)
  })

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
    const [rule] = (
      await (await as('liv')).json<ThreadView>('GET', `/api/activities/${world.city.id}/contributions`)
    ).body.checks
    expect(rule).toMatchObject({ need: 1 })
    const checks = async (who: string) =>
      (await (await as(who)).json<ThreadView>('GET', `/api/activities/${world.city.id}/contributions`)).body
        .checks
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

  it('goes out as Markdown and comes in again as it was, pictures and notes included, and as a site that needs nothing of ours', async () => {
    const groupId = (await at('Port Amara')).groupId!
    const malin = await as('malin')
    const out = async (form: string) =>
      unzipSync(
        new Uint8Array(
          await (
            await malin.send(
              'GET',
              `/api/activities/${world.city.id}/wiki/export?as=${form}&group=${groupId}`,
            )
          ).arrayBuffer(),
        ),
      )
    const site = await out('site')
    expect(Object.keys(site)).toEqual(
      expect.arrayContaining(['index.html', 'the-two-moles.html', 'what-to-pay.html']),
    )
    const html = strFromU8(site['port-amara.html']!)
    expect(html).toContain('<a href="the-two-moles.html">')
    for (const [name, bytes] of Object.entries(site))
      if (name.endsWith('.html')) expect(strFromU8(bytes), name).not.toMatch(/\/api\/|<script|\?to=/)
    const markdown = await out('markdown')
    const files = Object.entries(markdown)
      .filter(([name]) => name.endsWith('.md'))
      .map(([name, bytes]) => ({ name, text: strFromU8(bytes) }))
    // taken in where it came from, it says what is there already
    const same = (
      await malin.json<{ pages: Array<{ title: string; isNew: boolean }> }>(
        'POST',
        `/api/activities/${world.city.id}/wiki/import`,
        { key: v7(), groupId, files: files.filter(f => !f.text.includes('pictures/')) },
      )
    ).body
    const after = await wiki('malin')
    expect(same.pages.every(p => after.pages.some(x => x.title === p.title))).toBe(true)
    const numbers = async () =>
      Object.fromEntries((await wiki('malin')).pages.map(p => [p.title, p.versions]))
    expect(await numbers()).toEqual(Object.fromEntries(after.pages.map(p => [p.title, p.versions])))
    for (const title of ['What to pay', 'Pilots and their oath', 'Port Amara'])
      expect(
        (await read('malin', (await at(title)).id)).versions.some(v => v.summary.startsWith('taken in')),
        title,
      ).toBe(false)
    // and elsewhere the same documents
    const other = (await world.page(world.city.id, 'Qasr el-Mina', 'The chain')).groupId!
    const liv = await as('liv')
    const key = v7()
    const taken = files.filter(f =>
      ['What to pay.md', 'Pilots and their oath.md', 'Port Amara.md'].includes(f.name),
    )
    for (let twice = 0; twice < 2; twice++)
      expect(
        (
          await liv.send('POST', `/api/activities/${world.city.id}/wiki/import`, {
            key,
            groupId: other,
            files: taken,
          })
        ).status,
      ).toBe(200)
    for (const { name } of taken) {
      const title = name.replace('.md', '')
      const [from, to] = [
        await read('malin', (await at(title)).id),
        await read('liv', (await at(title, 'Qasr el-Mina')).id),
      ]
      expect(to.doc, title).toEqual(from.doc)
      expect(to.number).toBe(1)
    }
    const refused = await liv.json<Refused>('POST', `/api/activities/${world.city.id}/wiki/import`, {
      key: v7(),
      groupId: other,
      files: [
        { name: 'good.md', text: '# Good\n\nFine.' },
        { name: 'deep.md', text: `${'> '.repeat(40)}deep` },
      ],
    })
    expect(refused.body.detail).toContain('deep.md')
    expect((await wiki('liv')).pages.some(p => p.title === 'Good')).toBe(false) // all or none
    expect(
      (
        await liv.json<Refused>('POST', `/api/activities/${world.city.id}/wiki/import`, {
          key: v7(),
          groupId: other,
          files: [
            {
              name: 'x.md',
              text: '# <script>alert(1)</script>\n\n<img src=x onerror=alert(1)> [go](javascript:alert(1))',
            },
          ],
        })
      ).status,
    ).toBe(200)
    const bad = (await wiki('liv')).pages.find(p => p.title.includes('script'))!
    expect((await read('liv', bad.id)).html).not.toMatch(/<script|<img|javascript:/)
  })

  it('stands on the marking desk as what each member changed, in context, to be cited', async () => {
    const ines = await as('ines')
    const [walls] = [world.walls]
    const { id } = await world.enrolment('liv')
    const record = (await ines.json<RecordView>('GET', `/api/activities/${walls.id}/records/${id}`)).body
    const item = record.items.find(i => i.change?.page === 'Waves')!
    expect(item.change).toMatchObject({ number: 3, summary: 'what the masons say of them' })
    expect(item.text).toContain('the masons’ bill of 1610')
    expect(item.text).not.toContain('come from the north-east') // Malin's words are not hers
    expect(item.change!.blocks[0]!.parts.map(p => p.as)).toEqual(
      expect.arrayContaining(['kept', 'removed', 'added']),
    )
    const criterion = record.rubric!.criteria.find(c => c.scope === 'own')!
    const write = {
      key: v7(),
      baseVersion: record.mark.version,
      steps: record.mark.steps,
      letter: record.mark.letter,
      markerNote: '',
      lateWaived: false,
      citations: [
        {
          criterionId: criterion.id,
          contributionId: item.id,
          exact: 'the masons’ bill of 1610',
          start: item.text.indexOf('the masons’ bill'),
        },
      ],
    }
    expect((await ines.send('PUT', `/api/activities/${walls.id}/records/${id}/mark`, write)).status).toBe(200)
    const besnik = (
      await ines.json<RecordView>(
        'GET',
        `/api/activities/${walls.id}/records/${(await world.enrolment('besnik')).id}`,
      )
    ).body
    expect(besnik.items.find(i => i.about)).toMatchObject({
      about: { page: 'Waves', passage: 'nobody measured one', actedOn: 3 },
      answers: null,
    })
    // shares agree with a recount in SQL of what was written
    const groupId = (await world.page(walls.id, 'Enemies', 'Waves')).groupId!
    const counted = (
      await ines.json<WikiShares>('GET', `/api/activities/${walls.id}/wiki/shares?group=${groupId}`)
    ).body
    const rows = await world.db
      .select({ words: t.pageVersions.written })
      .from(t.pageVersions)
      .innerJoin(t.contributions, eq(t.contributions.id, t.pageVersions.id))
      .innerJoin(t.wikiPages, eq(t.wikiPages.id, t.pageVersions.pageId))
      .where(and(eq(t.contributions.authorId, id), eq(t.wikiPages.groupId, groupId)))
    expect(counted.members.find(m => m.member.givenName === 'Liv')).toMatchObject({
      written: rows.reduce((s, r) => s + r.words, 0),
      edits: rows.length,
    })
    expect(counted.members.reduce((s, m) => s + m.standing, 0) + counted.others).toBe(counted.words)
  })
})
