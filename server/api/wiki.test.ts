import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { plainText, type RichNode } from '#core/contributing/richText'
import { countWords } from '#core/contributing/measureText'
import type { LiveEvent } from '#shared/contributing/thread'
import type { Overlaps, PageView, VersionView, WikiShares, WikiView } from '#shared/kinds/wiki/wiki'
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
        // most put a word at a place of their own, every sixteenth changes the same words of one paragraph
        const own = 1 + 2 * Math.floor(n / lines.length)
        const text = lines
          .map((l, i) => {
            if (n % 16 === 15) return i === 0 ? l.replace('something of its own', `something ${word}`) : l
            if (i === n % lines.length) return l.split(' ').toSpliced(own, 0, word).join(' ')
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

  it('ends well where the other’s wording is chosen: nothing is left to save, and the draft is gone', async () => {
    const id = await make('malin', 'Theirs after all')
    await save('malin', id, 'The mole is of stone.', 0)
    await save('laleh', id, 'The mole is of old stone.', 1)
    const nico = await as('nico')
    const mine = doc('The mole is of wet stone.')
    const kept = await nico.json('PUT', `/api/pages/${id}/draft`, { doc: mine, base: 1, baseVersion: null })
    expect(kept.status, JSON.stringify(kept.body)).toBe(200)
    const body = { key: v7(), doc: mine, base: 1, chosen: [] as object[] }
    const refused = await nico.json<Saved>('POST', `/api/pages/${id}/versions`, body)
    expect(refused.status).toBe(409)
    const chosen = refused.body.theirs!.overlaps.map(o => ({ ...o, choice: 'theirs' }))
    const saved = await nico.json<Saved>('POST', `/api/pages/${id}/versions`, { ...body, chosen })
    expect(saved).toMatchObject({ status: 200, body: { number: 2, isNew: false } })
    expect(await read('nico', id)).toMatchObject({ number: 2, draft: null })
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
})
