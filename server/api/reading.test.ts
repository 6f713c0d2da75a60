import { PDFDocument, PDFName, StandardFonts } from '@cantoo/pdf-lib'
import { strToU8, zipSync } from 'fflate'
import { eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { makeAnchor } from '#core/kinds/reading/anchor'
import type { TextsView, VersionAdded } from '#shared/kinds/reading/reading'
import type { ThreadView } from '#shared/contributing/thread'
import type { ComposerView } from '#shared/planning/composer'
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
})
