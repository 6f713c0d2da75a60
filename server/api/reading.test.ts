import { PDFDocument, PDFName, StandardFonts } from '@cantoo/pdf-lib'
import { strToU8, zipSync } from 'fflate'
import { and, eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { makeAnchor } from '#core/contributing/reading/anchor'
import type { ReadingView, TextsView, VersionAdded } from '#shared/contributing/reading'
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

describe('readings', () => {
  let world: World
  const clients = new Map<string, Promise<Client>>()
  const as = (key: string): Promise<Client> => {
    const client = clients.get(key) ?? world.as(key)
    clients.set(key, client)
    return client
  }
  let texts: string
  let calm: string
  beforeAll(async () => {
    world = await testWorld()
    texts = `/api/seminars/${world.seminar.id}/texts`
    calm = `/api/activities/${world.calm.id}`
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
    (await (await as(who)).json<ThreadView>('GET', `/api/activities/${activityId}/contributions`)).body
  const notesOf = (view: ThreadView) =>
    view.contributions.flatMap(c =>
      c.view === 'whole' && c.note ? [{ ...c.note, id: c.id, by: c.author.givenName, html: c.html }] : [],
    )

  it('are opened by what a file is: a paper, an article, a document, a book, a recording with its transcript', async () => {
    expect((await add('roll.pdf', await pdf(['First page of words', 'Second page']))).body).toMatchObject({
      form: 'paper',
      parts: 2,
      remarks: [],
      title: 'roll',
    })
    expect(
      (await add('a.md', '# One\n\nWords of one.\n\n# Two\n\nWords of two.[^1]\n\n[^1]: A note.')).body,
    ).toMatchObject({ form: 'article', parts: 2 })
    expect(
      (
        await add(
          'a.html',
          '<title>Silt</title><h1>Silt</h1><p onclick="x()">Mud<script>alert(1)</script> and <b>more</b></p>',
        )
      ).body,
    ).toMatchObject({ form: 'article', title: 'Silt' })
    expect(
      (
        await add('sound.weba', Buffer.from([0x1a, 0x45, 0xdf, 0xa3, 0, 0]), {
          transcript: 'WEBVTT\n\n00:00:01.000 --> 00:00:02.000\n<v Pilot>We lie off.',
        })
      ).body,
    ).toMatchObject({ form: 'recording', parts: 1 })
    const docx = zipSync({
      '[Content_Types].xml': strToU8(
        '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
      ),
      '_rels/.rels': strToU8(
        '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
      ),
      'word/document.xml': strToU8(
        '<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body><w:p><w:r><w:t>Whose silt?</w:t></w:r></w:p></w:body></w:document>',
      ),
    })
    expect((await add('a.docx', docx)).body).toMatchObject({ form: 'article', parts: 1 })
    const list = (await (await as('ines')).json<TextsView>('GET', texts)).body
    expect(
      list.texts.find(
        x => x.title === 'Reading the toll roll of 1612' || x.title.startsWith('The Toll Roll'),
      ),
    ).toMatchObject({ form: 'paper', parts: 10, notes: 57 })
    const html = await world.db.select({ html: t.textVersions.html }).from(t.textVersions)
    expect(JSON.stringify(html)).not.toMatch(/script|onclick|alert/)
  })

  it('are refused with a sentence where a file is damaged, locked, too long or nothing to read; scripts are not run, and scans are said', async () => {
    const damaged = await add('x.pdf', '%PDF-1.7\nnothing more')
    expect([damaged.status, damaged.body.fields?.file]).toEqual([422, expect.stringContaining('damaged')])
    const locked = Buffer.from(
      await (async () => {
        const p = await PDFDocument.create()
        p.addPage()
        p.encrypt({ userPassword: 'silt', ownerPassword: 'mole' })
        return p.save()
      })(),
    )
    expect((await add('x.pdf', locked)).body.fields?.file).toContain('password')
    expect(
      (await add('x.pdf', await pdf(Array.from({ length: 2000 }, () => '')))).body.fields?.file,
    ).toContain('2000 pages')
    const scripted = await add('x.pdf', await pdf(['Words'], p => p.addJavaScript('open', 'app.alert(1)')))
    expect([scripted.status, scripted.body.remarks]).toEqual([200, [expect.stringContaining('not run')]])
    expect((await add('x.pdf', await pdf(['Words', '']))).body.remarks[0]).toContain('Page 2 holds no text')
    expect((await add('x.pdf', await pdf(['', '']))).body.remarks[0]).toContain('it is a scan')
    expect((await add('x.epub', zipSync({ 'a.txt': strToU8('x') }))).body.fields?.file).toContain(
      'neither a book',
    )
    expect((await add('x.bin', Buffer.from([1, 2, 3, 0xff]))).status).toBe(422)
    expect((await add('x.weba', Buffer.from([0x1a, 0x45, 0xdf, 0xa3]))).body.fields?.transcript).toContain(
      'transcript',
    )
    expect(
      (
        await add('x.weba', Buffer.from([0x1a, 0x45, 0xdf, 0xa3]), {
          transcript: 'WEBVTT\n\n00:00:09.000 --> 00:00:01.000\nx',
        })
      ).body.fields?.transcript,
    ).toContain('line 3')
    const bad = await pdf(['Words'], p => p.catalog.set(PDFName.of('Pages'), p.context.obj({})))
    expect((await add('x.pdf', bad)).status).toBe(422)
  })

  it('take notes on words wherever they stand: across paragraphs and pages, with ligatures, soft hyphens, right-to-left words and emoji', async () => {
    const { body } = await add(
      'odd.html',
      '<h1>One</h1><p>The e\u00adﬀect of  a\u00a0ﬁsh 🐟 and שלום עולם here.</p><p>Next para\u00adgraph<sup>1</sup>.</p><h1>Two</h1><p>caf\u0065\u0301 at the end.</p><p><sup>1</sup> A footnote.</p>',
    )
    const words = await wordsOf(body.id)
    expect(words).toBe(
      'One The effect of a fish 🐟 and שלום עולם here. Next paragraph1. Two café at the end. 1 A footnote.',
    )
    const id = await reading(body.id)
    const passages = [
      'effect of a fish',
      '🐟 and שלום',
      'עולם here. Next paragraph',
      'paragraph1. Two café',
      '1 A footnote',
    ]
    for (const exact of passages)
      expect((await note('liv', id, words, exact, `On ${exact}`)).status).toBe(200)
    const shown = notesOf(await thread('nico', id))
    expect(shown.map(n => words.slice(n.at!.start, n.at!.end))).toEqual(passages)
    expect(shown.map(n => n.part)).toEqual([1, 1, 1, 1, 2])
    // chosen in an older copy of the text, or with other places: found by its words; what is not in it is refused and kept
    const moved = await (
      await as('oona')
    ).json<Posted>('POST', `/api/activities/${id}/contributions`, {
      key: v7(),
      parentId: null,
      doc: doc('Found.'),
      note: {
        kind: 'question',
        part: 1,
        passage: { exact: 'café at the end', prefix: '', suffix: '', start: 3, end: 18 },
        area: null,
        time: null,
        tags: ['accents'],
        to: null,
      },
    })
    expect(moved.status).toBe(200)
    const gone = await (
      await as('oona')
    ).json<Posted>('POST', `/api/activities/${id}/contributions`, {
      key: v7(),
      parentId: null,
      doc: doc('Lost.'),
      note: {
        kind: 'note',
        part: 1,
        passage: { exact: 'not in this text at all', prefix: '', suffix: '', start: 3, end: 26 },
        area: null,
        time: null,
        tags: [],
        to: null,
      },
    })
    expect([gone.status, gone.body.fields?.note]).toEqual([422, expect.stringContaining('Choose them again')])
    expect(
      (
        await (
          await as('oona')
        ).json<Posted>('POST', `/api/activities/${id}/contributions`, {
          key: v7(),
          parentId: null,
          doc: doc('No passage.'),
        })
      ).body.fields?.note,
    ).toContain('Choose the words')
  })

  it('carry notes into a new version, and list what could not be placed', async () => {
    const before =
      '# Tolls\n\nThe roll begins at twenty lasts and ends with a free hull. Nobody could say who had seen it.\n\nThe guild’s barges are measured at nineteen. Nothing else is written on that leaf, and so it stood for years. A clerk keeps a second roll beside the first.'
    const { body } = await add('v.md', before)
    const id = await reading(body.id)
    const words = await wordsOf(body.id)
    const [kept, near, lost] = [
      await note('liv', id, words, 'a free hull', 'Stays.'),
      await note('nico', id, words, 'barges are measured at nineteen', 'Changes.'),
      await note('oona', id, words, 'A clerk keeps a second roll beside the first', 'Goes.', {
        kind: 'question',
      }),
    ]
    const after = `# Tolls\n\nA new paragraph comes first.\n\n${before.slice(9).replace('barges are measured', 'eleven barges were all measured').replace('A clerk keeps a second roll beside the first.', 'The end.')}`
    const { body: answer, status } = await (
      await as('ines')
    ).json<VersionAdded>('POST', `${texts}/${body.id}/versions`, {
      key: v7(),
      name: 'v.md',
      base64: base64(after),
    })
    expect(status).toBe(200)
    expect(answer).toMatchObject({
      number: 2,
      moved: 1,
      nearly: 1,
      lost: [
        { id: lost.body.id, author: 'Oona Rintala', exact: 'A clerk keeps a second roll beside the first' },
      ],
    })
    const now = await wordsOf(body.id)
    const shown = new Map(notesOf(await thread('liv', id)).map(n => [n.id, n]))
    expect(now.slice(shown.get(kept.body.id)!.at!.start, shown.get(kept.body.id)!.at!.end)).toBe(
      'a free hull',
    )
    expect(shown.get(near.body.id)).toMatchObject({
      how: 'nearly',
      passage: { exact: 'barges are measured at nineteen' },
    })
    expect(now.slice(shown.get(near.body.id)!.at!.start, shown.get(near.body.id)!.at!.end)).toContain(
      'measured at nineteen',
    )
    expect(shown.get(lost.body.id)).toMatchObject({ how: 'lost', at: null, html: '<p>Goes.</p>' })
    // what was lost is found again when its words come back
    const { body: back } = await (
      await as('ines')
    ).json<VersionAdded>('POST', `${texts}/${body.id}/versions`, {
      key: v7(),
      name: 'v.md',
      base64: base64(before),
    })
    expect(back).toMatchObject({ number: 3, lost: [] })
    // another form is another text; a text with notes stays the text of its reading
    expect(
      (
        await (
          await as('ines')
        ).json<Refused>('POST', `${texts}/${body.id}/versions`, {
          key: v7(),
          name: 'v.pdf',
          base64: base64(await pdf(['x'])),
        })
      ).body.fields?.file,
    ).toContain('an article')
    const { body: plan } = await (await as('ines')).json<ComposerView>('GET', `/api/activities/${id}/plan`)
    const change = await (
      await as('ines')
    ).json<Refused>('PATCH', `/api/activities/${id}/plan`, {
      key: v7(),
      baseVersion: plan.version,
      change: {
        reading: {
          textId: (await add('w.md', 'Other words.')).body.id,
          from: 1,
          to: null,
          writeFirst: 'none',
        },
      },
      tell: false,
    })
    expect([change.status, change.body.fields?.reading]).toEqual([
      422,
      expect.stringContaining('so it stays'),
    ])
  })

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
    const first = (
      await (
        await as('liv')
      ).json<ThreadView>('GET', `/api/activities/${activityId}/contributions?first=true`)
    ).body
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
