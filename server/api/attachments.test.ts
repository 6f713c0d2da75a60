import { eq } from 'drizzle-orm'
import { strToU8, zipSync } from 'fflate'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import type { WholeContribution } from '#shared/contributing/thread'
import type { FileView } from '#shared/files/file'
import { doc, testWorld, words, type World } from '#server/testing/world'

const key = () => v7()
const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
)
const TYPES =
  '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>'
const RELS =
  '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>'
const docx = (text: string, more: Record<string, Uint8Array> = {}) =>
  Buffer.from(
    zipSync({
      '[Content_Types].xml': strToU8(TYPES),
      '_rels/.rels': strToU8(RELS),
      'word/document.xml': strToU8(
        `<?xml version="1.0"?><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body><w:p><w:r><w:t>${text}</w:t></w:r></w:p></w:body></w:document>`,
      ),
      ...more,
    }),
  )

describe('files that come with a contribution', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())
  const up = async (who: string, name: string, bytes: Buffer, activityId = world.dredge.id) =>
    (await world.as(who)).json<FileView & { fields?: Record<string, string> }>(
      'POST',
      `/api/activities/${activityId}/files`,
      { id: key(), name, base64: bytes.toString('base64'), transcript: null },
    )

  it('refuses what is not what it is called, and whatever a browser would run, with a sentence; nothing is kept', async () => {
    const before = await world.db.$count(t.files)
    const evil: ReadonlyArray<readonly [string, Buffer]> = [
      ['essay.pdf', Buffer.from('MZ\x90\0 this program cannot be run')],
      ['picture.png', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>')],
      ['map.svg', Buffer.from('<?xml version="1.0"?><svg onload="alert(1)"/>')],
      ['page.docx', Buffer.from('<html><script>alert(1)</script></html>')],
      ['notes.docx', Buffer.from(zipSync({ 'readme.txt': strToU8('no document') }))],
      ['run.docx', Buffer.from(zipSync({ 'a.exe': strToU8('MZ') }))],
      ['broken.docx', docx('x').subarray(0, 120)],
      ['elf.png', Buffer.from([0x7f, 0x45, 0x4c, 0x46, 1, 1, 1])],
      ['script.sh', Buffer.from('#!/bin/sh\nrm -rf /')],
    ]
    for (const [name, bytes] of evil) {
      const { status, body } = await up('liv', name, bytes)
      expect([name, status]).toEqual([name, 422])
      expect(body.fields!.file).toMatch(/[.?]$/)
    }
    expect(await world.db.$count(t.files)).toBe(before)
  })

  it('refuses more than one person’s files may have together, with a sentence; others go on', async () => {
    const first = await up('petra', 'map.png', PNG)
    expect(first.status).toBe(200)
    await world.db.update(t.files).set({ size: 499_999_999 }).where(eq(t.files.id, first.body.id))
    const { status, body } = await up('petra', 'more.png', PNG)
    expect([status, body.fields?.file]).toEqual([413, expect.stringContaining('500 MB are the most')])
    expect((await up('liv', 'map.png', PNG)).status).toBe(200)
    await world.db.delete(t.files).where(eq(t.files.id, first.body.id))
  })

  it('refuses a document that unpacks to far more than a text, and one that lies about it', async () => {
    const before = await world.db.$count(t.files)
    const bomb = docx('small', { 'word/media.xml': new Uint8Array(60_000_000) })
    expect(bomb.length).toBeLessThan(500_000)
    const { status, body } = await up('liv', 'essay.docx', bomb)
    expect(status).toBe(422)
    expect(body.fields!.file).toMatch(/unpacks to far more/)
    // the same, with every size in its directory rewritten to one byte
    const liar = Buffer.from(docx('x', { 'word/styles.xml': new Uint8Array(30_000_000) }))
    for (
      let at = liar.indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
      at >= 0;
      at = liar.indexOf(Buffer.from([0x50, 0x4b, 1, 2]), at + 1)
    )
      liar.writeUInt32LE(1, at + 24)
    const lied = await up('liv', 'essay.docx', liar)
    expect(lied.status).toBe(422)
    expect(await world.db.$count(t.files)).toBe(before)
  })

  it('refuses what is larger than may be, however it is sent, without reading it whole', async () => {
    const liv = await world.as('liv')
    const huge = await liv
      .send(
        'POST',
        `/api/activities/${world.dredge.id}/files`,
        JSON.stringify({ id: key(), name: 'huge.png', base64: 'A'.repeat(200_000_000), transcript: null }),
        { 'content-type': 'application/json' },
      )
      .catch(() => null)
    if (huge) expect(huge.status).toBe(413) // or the connection is cut while it is still being sent
    const big = await up('liv', 'big.png', Buffer.concat([PNG, Buffer.alloc(11_000_000)]))
    expect([big.status, big.body.fields!.file]).toEqual([413, expect.stringMatching(/up to 10 MB/)])
  })

  it('shows a document as text, cleaned, so that nobody has to download it', async () => {
    const { body } = await up(
      'liv',
      'essay.docx',
      docx('Of ships &amp; of daylight &lt;script&gt;alert(1)&lt;/script&gt;'),
    )
    expect(body).toMatchObject({ type: expect.stringMatching(/wordprocessingml/), hasText: true })
    const text = await (await world.as('liv')).send('GET', `${body.url}/text`)
    expect(await text.text()).toBe('<p>Of ships &amp; of daylight &lt;script&gt;alert(1)&lt;/script&gt;</p>')
    expect(text.headers.get('content-security-policy')).toContain('sandbox')
  })

  it('reach exactly those who may read the contribution', async () => {
    const { body: file } = await up('liv', 'strand.png', PNG)
    const get = async (who: string) => (await (await world.as(who)).send('GET', file.url)).status
    expect([await get('liv'), await get('kadri'), await get('ines')]).toEqual([200, 404, 404]) // with nothing yet: its maker's alone
    const liv = await world.as('liv')
    const target = await world.contribution('rasmus', world.dredge.id)
    const place = { parentId: target.id, fileIds: [file.id] }
    expect(
      (
        await liv.send('PUT', `/api/activities/${world.dredge.id}/draft`, {
          ...place,
          doc: doc('With a picture.'),
          baseVersion: null,
        })
      ).status,
    ).toBe(200)
    expect([await get('kadri'), await get('ines')]).toEqual([404, 404]) // in a draft
    // nobody else can make it theirs
    const stolen = await (
      await world.as('kadri')
    ).json<{ fields: Record<string, string> }>('POST', `/api/activities/${world.dredge.id}/contributions`, {
      key: key(),
      ...place,
      doc: doc('Mine now.'),
    })
    expect([stolen.status, stolen.body.fields.fileIds]).toEqual([
      422,
      expect.stringMatching(/not there any more/),
    ])
    const { body: posted } = await liv.json<{ id: string }>(
      'POST',
      `/api/activities/${world.dredge.id}/contributions`,
      { key: key(), ...place, doc: doc('With a picture.') },
    )
    expect([
      await get('kadri'),
      await get('ines'),
      await get('observer'),
      await get('paz'),
      await get('outsider'),
    ]).toEqual([200, 200, 200, 404, 404]) // paz has not written yet
    const thread = (
      await (await world.as('kadri')).thread(`/api/activities/${world.dredge.id}/contributions`)
    ).body
    expect((thread.contributions.find(c => c.id === posted.id) as WholeContribution).files).toMatchObject([
      { id: file.id, name: 'strand.png' },
    ])
    await liv.send('PUT', `/api/contributions/${posted.id}/withdrawn`, { withdrawn: true })
    expect([await get('liv'), await get('kadri'), await get('ines')]).toEqual([200, 404, 200])
  })

  it('refuses more of them than are taken', async () => {
    const many = await Promise.all(
      Array.from({ length: 5 }, async () => (await up('liv', 'p.png', PNG)).body.id),
    )
    const { status, body } = await (
      await world.as('liv')
    ).json<{ fields: Record<string, string> }>('POST', `/api/activities/${world.dredge.id}/contributions`, {
      key: key(),
      parentId: (await world.contribution('rasmus', world.dredge.id)).id,
      doc: doc(words(70)),
      fileIds: many,
    })
    expect([status, body.fields.fileIds]).toEqual([422, 'Up to 4 files can come with a text. Take 1 off.'])
  })
})
