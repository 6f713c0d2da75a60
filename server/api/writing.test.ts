import { and, eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { doc, testWorld, words, type World } from '#server/testing/world'
import type { DraftView } from '#shared/contributing/thread'

interface Refusal {
  readonly status: number
  readonly detail: string
  readonly code: string
  readonly fields: Record<string, string>
  readonly theirs: DraftView
}

describe('writing in a talk', () => {
  let world: World
  let liv: Client
  let place: string
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())
  beforeEach(async () => {
    liv = await world.as('liv')
    place = `/api/activities/${world.dredge.id}`
  })
  const count = async () => world.db.$count(t.contributions, eq(t.contributions.activityId, world.dredge.id))
  const post = (body: object, as = liv) =>
    as.json<Refusal & { id: string }>('POST', `${place}/contributions`, {
      key: v7(),
      parentId: null,
      ...body,
    })
  const thread = async (as = liv) => (await as.thread(`${place}/contributions`)).body

  it('stores a post sent twice once, and answers the same: one after the other and at the same instant', async () => {
    const before = await count()
    const body = { key: v7(), parentId: null, doc: doc('The lead line says otherwise.') }
    const [a, b] = await Promise.all([post(body), post(body)])
    const c = await post(body)
    expect([a.status, b.status, c.status]).toEqual([200, 200, 200])
    expect(new Set([a.body.id, b.body.id, c.body.id]).size).toBe(1)
    expect(await count()).toBe(before + 1)
  })

  it.each([
    ['an empty post', { doc: doc('') }, 422, 'doc'],
    ['a post of spaces', { doc: doc('  \u00a0 ') }, 422, 'doc'],
    [
      "a quotation without a word of one's own",
      {
        doc: {
          type: 'doc',
          content: [
            {
              type: 'blockquote',
              content: [{ type: 'paragraph', content: [{ type: 'text', text: 'silt' }] }],
            },
          ],
        },
      },
      422,
      'doc',
    ],
    ['a text of 70,000 characters', { doc: doc('a '.repeat(35_000)) }, 422, 'doc'],
    ['2 MB of text', { doc: doc('a '.repeat(1_000_000)) }, 413, 'doc'],
    [
      'a text nested too deeply',
      {
        doc: Array.from({ length: 40 }).reduce<object>(d => ({ type: 'blockquote', content: [d] }), {
          type: 'paragraph',
        }),
      },
      422,
      'doc',
    ],
    ['nothing that is a document', { doc: 'words' }, 422, 'doc'],
  ])('refuses %s with a sentence at the field and stores nothing', async (_, body, status, field) => {
    const before = await count()
    const answer = await post(body)
    expect(answer.status).toBe(status)
    expect(answer.body.fields[field]).toMatch(/^[A-Z].{15,}[.?]$/)
    expect(await count()).toBe(before)
  })

  it('refuses a reply to a withdrawn post, keeps the draft, and takes it again once the post is back', async () => {
    const ines = await world.as('ines')
    const target = await world.contribution('petra', world.dredge.id)
    const draft = await liv.json<DraftView>('PUT', `${place}/draft`, {
      parentId: target.id,
      doc: doc('To the coasters I would say'),
      baseVersion: null,
    })
    expect(draft.status).toBe(200)
    expect(
      (await ines.send('PUT', `/api/contributions/${target.id}/withdrawn`, { withdrawn: true })).status,
    ).toBe(200)
    const refused = await post({ parentId: target.id, doc: doc('To the coasters I would say this.') })
    expect(refused.status).toBe(422)
    expect(refused.body.fields.doc).toMatch(/Petra has withdrawn this post/)
    expect((await thread()).drafts.some(d => d.parentId === target.id)).toBe(true)
    await ines.send('PUT', `/api/contributions/${target.id}/withdrawn`, { withdrawn: false })
    expect((await post({ parentId: target.id, doc: doc('To the coasters I would say this.') })).status).toBe(
      200,
    )
    expect((await thread()).drafts.some(d => d.parentId === target.id)).toBe(false)
  })

  it('refuses a post before the opening and says when it opens', async () => {
    const ines = await world.as('ines')
    const answer = await ines.json<Refusal>('POST', `/api/activities/${world.essays.id}/contributions`, {
      key: v7(),
      parentId: null,
      doc: doc('Too early.'),
    })
    expect(answer.status).toBe(422)
    expect(answer.body.fields.doc).toContain('Monday 26 October, 08:00')
  })

  it('keeps a draft, and never overwrites one that was changed in another window', async () => {
    const target = await world.contribution('abena', world.dredge.id)
    const write = (text: string, baseVersion: number | null) =>
      liv.json<DraftView & Refusal>('PUT', `${place}/draft`, {
        parentId: target.id,
        doc: doc(text),
        baseVersion,
      })
    const first = await write('Five weeks are', null)
    const second = await write('Five weeks are not a winter', first.body.version)
    expect(second.body.version).toBe(first.body.version + 1)
    const stale = await write('Five weeks, however,', first.body.version)
    expect(stale.status).toBe(409)
    expect(JSON.stringify(stale.body.theirs.doc)).toContain('not a winter')
    expect(JSON.stringify((await thread()).drafts.find(d => d.parentId === target.id)!.doc)).toContain(
      'not a winter',
    )
    // two windows that both begin: one draft, the other hears of it
    const other = await world.contribution('femke', world.dredge.id)
    const both = await Promise.all(
      ['One', 'Two'].map(text =>
        liv.json<DraftView>('PUT', `${place}/draft`, {
          parentId: other.id,
          doc: doc(text),
          baseVersion: null,
        }),
      ),
    )
    expect(both.map(b => b.status).sort()).toEqual([200, 409])
  })

  it('moves the expectation as replies come in, each classmate once', async () => {
    const kadri = await world.as('kadri')
    const check = async () => (await thread(kadri)).checks[1]!
    const start = await check()
    const reply = async (to: string, n: number) =>
      post({ parentId: (await world.contribution(to, world.dredge.id)).id, doc: doc(words(n)) }, kadri)
    await reply('oona', 59)
    expect((await check()).have).toBe(start.have)
    await reply('oona', 60)
    expect((await check()).have).toBe(start.have + 1)
    await reply('oona', 80)
    expect((await check()).have).toBe(start.have + 1)
    await reply('idris', 60)
    expect((await check()).have).toBe(start.have + 2)
  })

  it('lets one change a post within its window, keeps the earlier text, and refuses afterwards', async () => {
    const { body: posted } = await post({ doc: doc('First thoughts about mud.') })
    const edit = (id: string, text: string, baseVersion: number) =>
      liv.json<Refusal>('PATCH', `/api/contributions/${id}`, { key: v7(), doc: doc(text), baseVersion })
    expect((await edit(posted.id, 'Second thoughts about mud.', 1)).status).toBe(200)
    expect((await edit(posted.id, 'Third, from an old window.', 1)).status).toBe(409)
    const revisions = await world.db
      .select()
      .from(t.contributionRevisions)
      .where(eq(t.contributionRevisions.contributionId, posted.id))
    expect(revisions.map(r => r.text)).toEqual(['First thoughts about mud.'])
    const old = await world.contribution('liv', world.dredge.id)
    const late = await edit(old.id, 'Far too late.', old.version)
    expect(late.status).toBe(422)
    expect(late.body.fields.doc).toMatch(/30 minutes/)
  })

  it('renders markup harmless, whatever document is sent', async () => {
    const evil = {
      type: 'doc',
      content: [
        {
          type: 'paragraph',
          content: [
            { type: 'text', text: '<img src=x onerror=alert(1)>' },
            {
              type: 'text',
              text: 'click',
              marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }],
            },
            {
              type: 'text',
              text: 'go',
              marks: [
                {
                  type: 'link',
                  attrs: { href: 'https://example.org/"><script>alert(1)</script>', onclick: 'x' },
                },
              ],
            },
          ],
        },
        { type: 'script', content: [{ type: 'text', text: 'alert(2)' }] },
        { type: 'image', attrs: { src: 'https://elsewhere.example/pixel' } },
      ],
    }
    const { body } = await post({ doc: evil })
    const [row] = await world.db.select().from(t.contributions).where(eq(t.contributions.id, body.id))
    expect(row!.html).not.toMatch(/<(script|img|iframe)/i)
    expect(row!.html).not.toMatch(/javascript:|onclick|elsewhere/i)
    expect(row!.html).toContain('&lt;img src=x')
  })

  it('leaves the place of a withdrawn post that was answered, without words or name', async () => {
    const ines = await world.as('ines')
    const solongo = await world.contribution('solongo', world.dredge.id)
    await ines.send('PUT', `/api/contributions/${solongo.id}/withdrawn`, { withdrawn: true })
    const seen = (await thread(await world.as('rasmus'))).contributions.find(c => c.id === solongo.id)
    expect(seen).toEqual({ view: 'place', id: solongo.id, parentId: null, shownAt: expect.any(String) })
    const [trail] = await world.db
      .select()
      .from(t.auditTrail)
      .where(and(eq(t.auditTrail.subjectId, solongo.id)))
    expect(trail!.act).toBe('contributionWithdrawn')
  })
})
