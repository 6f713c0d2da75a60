import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib'
import { and, eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { makeAnchor } from '#core/kinds/reading/anchor'
import type { ThreadView } from '#shared/contributing/thread'
import type { ComposerView } from '#shared/planning/composer'
import type { RecordView } from '#shared/marking/desk'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { doc, testWorld, type World } from '#server/testing/world'

type Refused = { readonly code: string; readonly detail: string; readonly fields?: Record<string, string> }
type Added = {
  readonly id: string
  readonly title: string
  readonly form: string
  readonly parts: number
  readonly remarks: string[]
} & Refused
type Posted = { readonly id: string } & Refused
const base64 = (bytes: Uint8Array | string) => Buffer.from(bytes as string).toString('base64')

async function pdf(
  pages: readonly string[],
  more: (paper: PDFDocument) => void = () => {},
): Promise<Uint8Array> {
  const paper = await PDFDocument.create()
  const font = await paper.embedFont(StandardFonts.Helvetica)
  for (const text of pages) {
    const page = paper.addPage([300, 400])
    if (text) page.drawText(text, { x: 20, y: 300, size: 12, font, maxWidth: 260 })
  }
  more(paper)
  return paper.save({ useObjectStreams: false })
}

describe('notes on a reading', () => {
  let world: World
  const clients = new Map<string, Promise<Client>>()
  const as = (key: string): Promise<Client> => {
    const client = clients.get(key) ?? world.as(key)
    clients.set(key, client)
    return client
  }
  let texts: string
  beforeAll(async () => {
    world = await testWorld()
    texts = `/api/seminars/${world.seminar.id}/texts`
  })
  afterAll(async () => {
    await world.close()
  })

  const add = async (name: string, bytes: Uint8Array | string, more: { transcript?: string } = {}) =>
    (await as('ines')).json<Added>('POST', texts, {
      key: v7(),
      id: v7(),
      name,
      base64: base64(bytes),
      ...more,
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
  async function note(
    who: string,
    activityId: string,
    words: string,
    exact: string,
    said: string,
    more: Record<string, unknown> = {},
  ) {
    const start = words.indexOf(exact)
    return (await as(who)).json<Posted>('POST', `/api/activities/${activityId}/contributions`, {
      key: v7(),
      parentId: null,
      doc: doc(said),
      note: {
        kind: 'note',
        part: 1,
        passage: makeAnchor(words, start, start + exact.length),
        area: null,
        time: null,
        tags: [],
        to: null,
        ...more,
      },
    })
  }
  const thread = async (who: string, activityId: string) =>
    (await (await as(who)).thread(`/api/activities/${activityId}/contributions`)).body
  const notesOf = (view: ThreadView) =>
    view.contributions.flatMap(c =>
      c.view === 'whole' && c.note ? [{ ...c.note, id: c.id, by: c.author.givenName, html: c.html }] : [],
    )

  it('keep the notes of another group on the server, wherever one asks', async () => {
    const { body } = await add('apart.md', 'One margin for each group, and the words are the same.')
    const [plan] = await world.db
      .select()
      .from(t.groupPlans)
      .where(and(eq(t.groupPlans.seminarId, world.seminar.id), eq(t.groupPlans.title, 'City pages')))
    const id = await reading(body.id, {
      audience: { kind: 'groups', groupPlanId: plan!.id, groupIds: [] },
      apart: 'groups',
    })
    const words = await wordsOf(body.id)
    const members = await world.db
      .select({ groupId: t.groupMembers.groupId, email: t.persons.email })
      .from(t.groupMembers)
      .innerJoin(t.enrolments, eq(t.enrolments.id, t.groupMembers.enrolmentId))
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
      .where(eq(t.groupMembers.groupPlanId, plan!.id))
    const keyOf = (email: string) => email.split('@')[0]!
    const first = members.filter(m => m.groupId === members[0]!.groupId).map(m => keyOf(m.email))
    const other = keyOf(members.find(m => m.groupId !== members[0]!.groupId)!.email)
    const secret = 'qwertzsecretwords'
    const { body: posted } = await note(first[0]!, id, words, 'One margin', `This is ${secret}.`)
    expect(notesOf(await thread(first[1]!, id)).map(n => n.id)).toContain(posted.id)
    const outside = await as(other)
    const token = (
      await outside.json<{ address: string; token: string }>(
        'POST',
        `/api/activities/${id}/reading/tools`,
        {},
      )
    ).body
    const seen = await Promise.all(
      [
        `/api/activities/${id}/contributions`,
        `/api/activities/${id}/texts?ids=${posted.id}`,
        `/api/activities/${id}/reading`,
        `/api/activities/${id}/reading/annotations`,
        `/api/activities/${id}/find?q=${secret}`,
        `/api/contributions/${posted.id}`,
      ].map(async path => JSON.stringify(await outside.json('GET', path))),
    )
    const container = await fetch(`${world.address}/annotations/${id}/`, {
      headers: { authorization: `Bearer ${token.token}` },
    })
    const single = await fetch(`${world.address}/annotations/${id}/${posted.id}`, {
      headers: { authorization: `Bearer ${token.token}` },
    })
    expect([container.status, single.status]).toEqual([200, 404])
    for (const bytes of [...seen, await container.text(), await single.text()]) {
      expect(bytes).not.toContain(secret)
      expect(bytes).not.toContain(`"${posted.id}"`)
    }
    expect(
      (await outside.json<Refused>('PUT', `/api/contributions/${posted.id}/settled`, { settled: true }))
        .status,
    ).toBe(404)
    expect(notesOf(await thread('ines', id)).map(n => n.id)).toContain(posted.id)
  })

  it('open a page to those who have written on it; staff’s starter notes guide from the start', async () => {
    const { body } = await add(
      'pages.md',
      '# One\n\nThe first section has words.\n\n# Two\n\nThe second section has others.',
    )
    const id = await reading(body.id, { reading: { textId: body.id, from: 1, to: null, writeFirst: 'page' } })
    const words = await wordsOf(body.id)
    await note('ines', id, words, 'first section', 'Begin here.')
    await note('liv', id, words, 'has words', 'On one.')
    await note('liv', id, words, 'has others', 'On two.')
    expect(notesOf(await thread('nico', id)).map(n => n.html)).toEqual(['<p>Begin here.</p>'])
    await note('nico', id, words, 'The second', 'Mine on two.')
    expect(notesOf(await thread('nico', id)).map(n => n.html)).toEqual([
      '<p>Begin here.</p>',
      '<p>On two.</p>',
      '<p>Mine on two.</p>',
    ])
    expect(notesOf(await thread('ines', id))).toHaveLength(4)
    expect(
      JSON.stringify(
        (await (await as('nico')).json('GET', `/api/activities/${id}/reading/annotations`)).body,
      ),
    ).not.toContain('On one')
  })

  it('open, when long, with the notes of the pages that are read first and one’s own; the rest is there when asked for', async () => {
    const sentence = (n: number) => `Page ${n} has a sentence about the harbour.`
    const {
      body: { id: textId },
    } = await add('long.pdf', await pdf(Array.from({ length: 12 }, (_, i) => sentence(i + 1))))
    const activityId = await reading(textId)
    const [words, liv, nico] = [
      await wordsOf(textId),
      await world.enrolment('liv'),
      await world.enrolment('nico'),
    ]
    const row = (i: number, by: typeof liv, part: number) => {
      const [id, exact] = [v7(), sentence(part)]
      const passage = makeAnchor(words, words.indexOf(exact), words.indexOf(exact) + exact.length)
      return {
        id,
        seminarId: world.seminar.id,
        activityId,
        authorId: by.id,
        type: 'note' as const,
        threadId: id,
        openerId: by.id,
        state: 'shown' as const,
        seq: i + 1,
        doc: doc('x'),
        html: `<p>${i}</p>`,
        text: String(i),
        words: 1,
        detail: {
          note: {
            kind: 'note' as const,
            part,
            passage,
            area: null,
            time: null,
            tags: [],
            to: null,
            at: { start: passage.start, end: passage.end },
            how: 'here' as const,
          },
        },
        madeAt: new Date('2026-10-13T08:00:00Z'),
        savedAt: new Date('2026-10-13T08:00:00Z'),
        shownAt: new Date('2026-10-13T08:00:00Z'),
      }
    }
    await world.db
      .insert(t.contributions)
      .values([...Array.from({ length: 480 }, (_, i) => row(i, nico, (i % 12) + 1)), row(480, liv, 11)])
    const first = (await (await as('liv')).thread(`/api/activities/${activityId}/contributions?first=true`))
      .body
    expect(first).toMatchObject({ more: true, lastSeq: 481 })
    expect([...new Set(notesOf(first).map(n => `${n.by} ${n.part}`))].sort()).toEqual([
      'Liv 11',
      'Nico 1',
      'Nico 2',
      'Nico 3',
    ])
    const all = await thread('liv', activityId)
    expect([all.more, notesOf(all).length]).toEqual([false, 481])
  })

  it('count notes, questions and different pages of what is set', async () => {
    const { body } = await add(
      'count.md',
      '# One\n\nFirst words here.\n\n# Two\n\nSecond words there.\n\n# Three\n\nThird words beside.',
    )
    const rule = (r: Record<string, unknown>) => ({ id: v7(), rule: { due: 'write', ...r }, needed: true })
    const id = await reading(body.id, {
      reading: { textId: body.id, from: 1, to: 2, writeFirst: 'none' },
      rules: [
        rule({ kind: 'entries', need: 3, minWords: 2 }),
        rule({ kind: 'questions', need: 1, minWords: 2 }),
        rule({ kind: 'parts', need: 2 }),
      ],
    })
    const words = await wordsOf(body.id)
    await note('kadri', id, words, 'First words', 'One two three.')
    await note('kadri', id, words, 'words beside', 'Outside of it.', { kind: 'question' })
    expect((await thread('kadri', id)).checks.map(c => c.have)).toEqual([1, 0, 1])
    const asked = await note('kadri', id, words, 'words there', 'Who says so?', { kind: 'question' })
    expect((await thread('kadri', id)).checks.map(c => [c.have, c.met])).toEqual([
      [2, false],
      [1, true],
      [2, true],
    ])
    // on the marking desk each stands with its passage
    const kadri = await world.enrolment('kadri')
    const { body: record } = await (
      await as('ines')
    ).json<RecordView>('GET', `/api/activities/${id}/records/${kadri.id}`)
    expect(record.items.map(i => [i.noted?.kind, i.noted?.where, i.noted?.exact, i.noted?.isSet])).toEqual([
      ['note', 'section 1', 'First words', true],
      ['question', 'section 3', 'words beside', false],
      ['question', 'section 2', 'words there', true],
    ])
    // a question has its answer when whoever put it says so
    expect(
      (
        await (
          await as('liv')
        ).json<Refused>('PUT', `/api/contributions/${asked.body.id}/settled`, { settled: true })
      ).status,
    ).toBe(403)
    expect(
      (
        await (
          await as('kadri')
        ).json('PUT', `/api/contributions/${asked.body.id}/settled`, { settled: true })
      ).status,
    ).toBe(200)
    expect(notesOf(await thread('liv', id)).find(n => n.id === asked.body.id)!.settled).toBe(true)
  })
})
