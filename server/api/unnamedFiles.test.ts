import { PDFDocument } from '@cantoo/pdf-lib'
import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { doc, testWorld, words, type World } from '#server/testing/world'
import type { FileView } from '#shared/files/file'

const NAME = 'Liv Brandt'

/** A paper whose program wrote its author into it, and whose first page says what is asked for. */
async function paper(text: string): Promise<Buffer> {
  const pdf = await PDFDocument.create()
  pdf.setAuthor(NAME)
  const page = pdf.addPage([300, 300])
  if (text !== '') page.drawText(text, { x: 20, y: 150, size: 12 })
  return Buffer.from(await pdf.save({ useObjectStreams: false }))
}

describe('files where names are hidden', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())
  const up = async (who: string, activityId: string, name: string, bytes: Buffer): Promise<FileView> => {
    const answer = await (
      await world.as(who)
    ).json<FileView>('POST', `/api/activities/${activityId}/files`, {
      id: v7(),
      name,
      base64: bytes.toString('base64'),
      transcript: null,
    })
    expect(answer.status).toBe(200)
    return answer.body
  }
  const got = async (who: string, { url }: FileView) => {
    const answer = await (await world.as(who)).send('GET', url)
    const bytes = Buffer.from(await answer.arrayBuffer())
    const author = (await PDFDocument.load(bytes, { updateMetadata: false })).getAuthor() ?? null
    return { name: /filename\*=UTF-8''(.*)/.exec(answer.headers.get('content-disposition')!)![1], author }
  }

  it('come to classmates under a neutral name and without what programs wrote, also those from before', async () => {
    const hide = (namesHidden: boolean) =>
      world.db
        .update(t.activities)
        .set({
          settings: {
            ...world.dredge.settings,
            writeFirst: false,
            namesHidden,
            attach: { types: ['paper'], most: 4, megabytes: 10 },
          },
        })
        .where(eq(t.activities.id, world.dredge.id))
    await hide(false)
    const early = await up('liv', world.dredge.id, 'brandt-early.pdf', await paper('A mole.'))
    await hide(true)
    const late = await up('liv', world.dredge.id, 'brandt-late.pdf', await paper('A mole.'))
    const posted = await (
      await world.as('liv')
    ).send('POST', `/api/activities/${world.dredge.id}/contributions`, {
      key: v7(),
      parentId: (await world.contribution('rasmus', world.dredge.id)).id,
      doc: doc(words(70)),
      fileIds: [early.id, late.id],
    })
    expect(posted.status).toBe(200)
    expect(await got('ines', early)).toEqual({ name: 'brandt-early.pdf', author: NAME })
    for (const file of [early, late])
      expect(await got('kadri', file)).toEqual({ name: 'Attachment.pdf', author: null })
    // it is cleaned once, for everybody; those who know whose it is have its name
    expect(await got('ines', early)).toEqual({ name: 'brandt-early.pdf', author: null })
    expect(await got('liv', early)).toEqual({ name: 'brandt-early.pdf', author: null })
    const [stored] = await world.db.select().from(t.files).where(eq(t.files.id, late.id))
    expect(stored!.bytes.includes('Author')).toBe(false)
    await hide(false)
    expect((await got('kadri', early)).name).toBe('brandt-early.pdf')
  })

  it('are looked through for names before they are handed in, page by page; a paper of pictures is named', async () => {
    const [named, scanned] = [
      await up('liv', world.reports.id, 'report.pdf', await paper('Report by Kadri Ilves, with thanks.')),
      await up('liv', world.reports.id, 'scan.pdf', await paper('')),
    ]
    const { body } = await (
      await world.as('liv')
    ).json('POST', `/api/activities/${world.reports.id}/hand-in/names`, {
      text: 'Nothing here.',
      fileIds: [named.id, scanned.id],
    })
    expect(body).toMatchObject({
      found: [{ exact: 'Kadri Ilves', kind: 'name', isOwn: false }],
      notSearched: ['scan.pdf'],
    })
  })
})
