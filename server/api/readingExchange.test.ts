import { eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import type { ReadingView } from '#shared/kinds/reading/reading'
import type { ThreadView } from '#shared/contributing/thread'
import type { ComposerView } from '#shared/planning/composer'
import * as t from '#server/database/schema'
import { loadRecords } from '#server/services/standing/records'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'

type Refused = { readonly code: string; readonly detail: string; readonly fields?: Record<string, string> }
type Added = {
  readonly id: string
  readonly title: string
  readonly form: string
  readonly parts: number
  readonly remarks: string[]
} & Refused

describe('readings and notes that travel', () => {
  let world: World
  const clients = new Map<string, Promise<Client>>()
  const as = (key: string): Promise<Client> => {
    const client = clients.get(key) ?? world.as(key)
    clients.set(key, client)
    return client
  }
  let calm: string
  beforeAll(async () => {
    world = await testWorld()
    calm = `/api/activities/${world.calm.id}`
  })
  afterAll(async () => {
    await world.close()
  })
  /** A reading of a text, open now, with what else is set. */
  async function reading(textId: string, set: Record<string, unknown> = {}) {
    const ines = await as('ines')
    const id = v7()
    await ines.json('POST', `/api/seminars/${world.seminar.id}/activities`, {
      id,
      kind: 'reading',
      week: 6,
      unitId: null,
      templateId: null,
    })
    const { body: plan } = await ines.json<ComposerView>('GET', `/api/activities/${id}/plan`)
    const saved = await ines.json<ComposerView & Refused>('PATCH', `/api/activities/${id}/plan`, {
      key: v7(),
      baseVersion: plan.version,
      change: { title: 'A reading', reading: { textId, from: 1, to: null, writeFirst: 'none' }, ...set },
      tell: false,
    })
    expect(saved.status, saved.body.detail).toBe(200)
    expect(
      (
        await ines.json('POST', `/api/activities/${id}/publish`, {
          key: v7(),
          baseVersion: saved.body.version,
          opens: 'now',
          tell: false,
        })
      ).status,
    ).toBe(200)
    return id
  }
  async function wordsOf(textId: string): Promise<string> {
    const [row] = await world.db
      .select({ words: t.textVersions.words })
      .from(t.textVersions)
      .where(eq(t.textVersions.textId, textId))
      .orderBy(sql`number desc`)
    return row!.words
  }
  const thread = async (who: string, activityId: string) =>
    (await (await as(who)).thread(`/api/activities/${activityId}/contributions`)).body
  const notesOf = (view: ThreadView) =>
    view.contributions.flatMap(c =>
      c.view === 'whole' && c.note ? [{ ...c.note, id: c.id, by: c.author.givenName, html: c.html }] : [],
    )

  it('are taken in by a student only as their own, and what is taken in counts for nothing', async () => {
    const ines = await as('ines')
    const malin = await as('malin')
    const out = (await ines.json<{ first: { items: object[] } }>('GET', `${calm}/reading/annotations`)).body
    const { body: where } = await ines.json<ReadingView>('GET', `${calm}/reading`)
    const id = await reading(where.text!.id)
    const me = await world.enrolment('malin')
    const own = (name: string, creator?: object) => ({
      '@context': 'http://www.w3.org/ns/anno.jsonld',
      type: 'Annotation',
      id: `urn:x:${name}`,
      ...(creator && { creator }),
      body: { type: 'TextualBody', value: `Noted by ${name}.`, format: 'text/plain' },
      target: {
        source: 'http://elsewhere.example/',
        selector: { type: 'TextQuoteSelector', exact: 'every night wears a cable' },
      },
    })
    const taken = await malin.json<{ notes: number; refused: Array<{ why: string }> }>(
      'POST',
      `/api/activities/${id}/reading/annotations`,
      {
        key: v7(),
        json: JSON.stringify([
          ...out.first.items.filter(item => !JSON.stringify(item).includes(me.id)),
          own('nobody'),
          own('me', { type: 'Person', id: `urn:uuid:${me.id}`, name: 'x' }),
          own('another', { type: 'Person', id: 'urn:x:y', name: 'Somebody Else' }),
        ]),
        trial: false,
      },
    )
    expect(taken.body.notes).toBe(2)
    expect(new Set(taken.body.refused.map(r => r.why))).toEqual(new Set(['somebody else wrote it']))
    const student = { enrolmentId: me.id } as Parameters<typeof loadRecords>[2][number] // nothing else of them is read
    const records = await loadRecords(world.db, [id], [student])
    expect(records.get(id)!.get(me.id)!.shown).toEqual([])
  })

  it('give all notes away in the open standard, and take them in from it', async () => {
    const ines = await as('ines')
    const out = (
      await ines.json<{ type: string; total: number; first: { items: Array<Record<string, never>> } }>(
        'GET',
        `${calm}/reading/annotations`,
      )
    ).body
    const view = await thread('ines', world.calm.id)
    expect(out).toMatchObject({ type: 'AnnotationCollection', total: view.contributions.length })
    expect(out.first.items.map(i => i.motivation)).toEqual(
      expect.arrayContaining(['commenting', 'questioning', 'replying', 'linking']),
    )
    // the same file comes back as what is here already; into another reading of the text it comes whole
    const again = await ines.json<{ notes: number; replies: number; refused: unknown[] }>(
      'POST',
      `${calm}/reading/annotations`,
      { key: v7(), json: JSON.stringify(out), trial: false },
    )
    expect(again.body).toMatchObject({ notes: 0, replies: 0, refused: { length: out.total } })
    const { body: where } = await ines.json<ReadingView>('GET', `${calm}/reading`)
    const id = await reading(where.text!.id)
    const trial = await ines.json('POST', `/api/activities/${id}/reading/annotations`, {
      key: v7(),
      json: JSON.stringify(out),
      trial: true,
    })
    expect([trial.body, (await thread('ines', id)).contributions.length]).toEqual([
      { notes: 21, replies: 8, refused: [] },
      0,
    ])
    await ines.json('POST', `/api/activities/${id}/reading/annotations`, {
      key: v7(),
      json: JSON.stringify(out),
      trial: false,
    })
    const taken = await thread('ines', id)
    expect(notesOf(taken).map(n => [n.kind === 'link' ? 'note' : n.kind, n.at])).toEqual(
      notesOf(view).map(n => [n.kind === 'link' ? 'note' : n.kind, n.at]),
    )
    expect(taken.contributions.filter(c => c.parentId !== null)).toHaveLength(8)
    const foreign = {
      '@context': 'http://www.w3.org/ns/anno.jsonld',
      type: 'Annotation',
      id: 'urn:x:1',
      body: { type: 'TextualBody', value: '<img src=x onerror=alert(1)>Hello', format: 'text/html' },
      target: {
        source: 'http://elsewhere.example/',
        selector: { type: 'TextQuoteSelector', exact: 'every night wears a cable' },
      },
    }
    const mixed = await ines.json<{ notes: number; refused: Array<{ why: string }> }>(
      'POST',
      `/api/activities/${id}/reading/annotations`,
      {
        key: v7(),
        json: JSON.stringify([
          foreign,
          { type: 'Annotation', target: 'x' },
          {
            ...foreign,
            id: 'urn:x:2',
            target: { source: 'y', selector: { type: 'TextQuoteSelector', exact: 'nowhere to be found' } },
          },
        ]),
        trial: false,
      },
    )
    expect([mixed.body.notes, mixed.body.refused.map(r => r.why)]).toEqual([
      1,
      ['it says nothing', 'its passage is not in this text'],
    ])
    expect(notesOf(await thread('ines', id)).at(-1)!.html).toBe('<p>Hello</p>')
    expect(
      (
        await ines.json<Refused>('POST', `/api/activities/${id}/reading/annotations`, {
          key: v7(),
          json: '{',
          trial: true,
        })
      ).body.fields?.json,
    ).toContain('no JSON')
  })

  it('are a container for one’s own programs, opened by a token alone', async () => {
    const liv = await as('liv')
    const { address, token } = (
      await liv.json<{ address: string; token: string }>('POST', `${calm}/reading/tools`, {})
    ).body
    expect((await liv.json('GET', `${calm}/reading/tools`)).body).toEqual({ address, token: null })
    const at = `${world.address}/annotations/${world.calm.id}/`
    const ask = (path: string, init: RequestInit = {}, secret = token) =>
      fetch(`${at}${path}`, {
        ...init,
        headers: {
          authorization: `Bearer ${secret}`,
          'content-type': 'application/ld+json',
          ...init.headers,
        },
      })
    expect((await fetch(at)).status).toBe(401)
    expect((await ask('', {}, 'x'.repeat(43))).status).toBe(401)
    const whole = await ask('')
    expect([
      whole.status,
      whole.headers.get('content-type'),
      whole.headers.get('link'),
      whole.headers.get('allow'),
    ]).toEqual([
      200,
      expect.stringContaining('ns/anno.jsonld'),
      expect.stringContaining('ldp#BasicContainer'),
      'GET, HEAD, OPTIONS, POST',
    ])
    const tag = whole.headers.get('etag')!
    expect((await ask('', { headers: { 'if-none-match': tag } })).status).toBe(304)
    expect(await whole.json()).toMatchObject({ type: ['BasicContainer', 'AnnotationCollection'], total: 29 })
    const made = await ask('', {
      method: 'POST',
      body: JSON.stringify({
        '@context': 'http://www.w3.org/ns/anno.jsonld',
        type: 'Annotation',
        motivation: 'questioning',
        body: { type: 'TextualBody', value: 'From my own program?' },
        target: {
          source: 'x',
          selector: [{ type: 'TextQuoteSelector', exact: 'The answer has no monument' }],
        },
      }),
    })
    expect(made.status).toBe(201)
    const id = made.headers.get('location')!.split('/').at(-1)!
    expect(notesOf(await thread('nico', world.calm.id)).find(n => n.id === id)).toMatchObject({
      by: 'Liv',
      kind: 'question',
    })
    expect((await ask('', { method: 'POST', body: '{"type":"Annotation","target":"x"}' })).status).toBe(422)
    expect(((await (await ask(id)).json()) as { motivation: string }).motivation).toBe('questioning')
    const others = notesOf(await thread('liv', world.calm.id)).find(n => n.by === 'Oona')!
    expect((await ask(others.id, { method: 'DELETE' })).status).toBe(403)
    expect((await ask(id, { method: 'DELETE' })).status).toBe(204)
    expect((await ask(id)).status).toBe(404)
    // an observer's program reads, and writes no more than the observer does
    const watching = (
      await (await as('observer')).json<{ token: string }>('POST', `${calm}/reading/tools`, {})
    ).body.token
    expect((await ask('', {}, watching)).status).toBe(200)
    expect(
      (
        await ask(
          '',
          {
            method: 'POST',
            body: JSON.stringify({
              type: 'Annotation',
              body: { type: 'TextualBody', value: 'Hello' },
              target: {
                source: 'x',
                selector: { type: 'TextQuoteSelector', exact: 'every night wears a cable' },
              },
            }),
          },
          watching,
        )
      ).status,
    ).toBe(403)
    await liv.json('POST', `${calm}/reading/tools`, {})
    expect((await ask('')).status).toBe(401) // an older token opens nothing any more
  })

  it('come from the book supplier by chapter or pages, and no more than was chosen', async () => {
    const ines = await as('ines')
    const { body } = await ines.json<{
      books: Array<{ id: string; parts: Array<{ number: number; label: string; heading: string | null }> }>
    }>('GET', `/api/seminars/${world.seminar.id}/supplier`)
    expect(body.books.map(b => [b.id, b.parts.length, b.parts.filter(p => p.heading).length])).toEqual([
      ['the-price-of-shelter', 9, 3],
      ['interpreters-of-the-quay', 5, 2],
    ])
    const taken = await ines.json<Added>('POST', `/api/seminars/${world.seminar.id}/supplier`, {
      key: v7(),
      id: v7(),
      bookId: 'the-price-of-shelter',
      from: 4,
      to: 5,
    })
    expect(taken.body).toMatchObject({ title: 'The Price of Shelter, pages 4–5', parts: 2 })
    const words = await wordsOf(taken.body.id)
    expect(words).toContain('The measure of a hull')
    expect(words).not.toContain('Calm water')
    expect(
      (
        await ines.json<Refused>('POST', `/api/seminars/${world.seminar.id}/supplier`, {
          key: v7(),
          id: v7(),
          bookId: 'the-price-of-shelter',
          from: 4,
          to: 50,
        })
      ).body.fields?.to,
    ).toContain('9 pages')
  })

  it('of a recording give their transcript away as WebVTT, and notes know their time', async () => {
    const ines = await as('ines')
    const { body } = await ines.json<ReadingView>('GET', `/api/activities/${world.pilot.id}/reading`)
    expect(body.text).toMatchObject({ form: 'recording', file: { type: 'audio/webm' } })
    expect(body.text!.cues).toHaveLength(38)
    expect(notesOf(await thread('ines', world.pilot.id))[0]).toMatchObject({ time: [5.307, 12.031] })
    const vtt = await (
      await fetch(`${world.address}/api/activities/${world.pilot.id}/reading/transcript`, {
        headers: { cookie: ines.cookies },
      })
    ).text()
    expect(vtt.startsWith('WEBVTT\n\n00:00:00.600 --> 00:00:04.357\n<v Interviewer>You may sit there')).toBe(
      true,
    )
    // what has not opened is not there for students
    expect((await (await as('liv')).json('GET', `/api/activities/${world.pilot.id}/reading`)).status).toBe(
      404,
    )
  })
})
