import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { doc, testWorld, type World } from '#server/testing/world'
import type { DraftView, WholeContribution } from '#shared/contributing/thread'
import type { FileView } from '#shared/files/file'
import type { ReviewDesk } from '#shared/kinds/review/review'

const PNG = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
)
const withPictures = (text: string, ...files: ReadonlyArray<Pick<FileView, 'url'>>) => {
  const { content } = doc(text)
  const pictures = files.map(f => ({ type: 'image', attrs: { src: f.url, alt: 'The old mole' } }))
  return { type: 'doc', content: [...content!, ...pictures] }
}

describe('pictures in the texts of students', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())
  const up = async (who: string) =>
    (
      await (
        await world.as(who)
      ).json<FileView>('POST', `/api/activities/${world.dredge.id}/files`, {
        ...{ id: v7(), name: 'mole.png', base64: PNG.toString('base64'), transcript: null },
      })
    ).body
  const shown = async (who: string, id: string) =>
    (
      await (await world.as(who)).thread(`/api/activities/${world.dredge.id}/contributions`)
    ).body.contributions.find((c): c is WholeContribution => c.view === 'whole' && c.id === id)!

  it('stand where they were put, for everybody who may read the text, and only those that came with it', async () => {
    const liv = await world.as('liv')
    const [own, others] = [await up('liv'), await up('kadri')]
    const target = await world.contribution('rasmus', world.dredge.id)
    const place = { parentId: target.id, fileIds: [own.id] }
    const text = 'It shows what was built before the toll began to be taken.'
    const draft = await liv.json<DraftView>('PUT', `/api/activities/${world.dredge.id}/draft`, {
      ...place,
      doc: withPictures(text, own, others),
      baseVersion: null,
    })
    expect(draft.body.doc).toEqual(withPictures(text, own))
    const post = await liv.json<{ id: string }>('POST', `/api/activities/${world.dredge.id}/contributions`, {
      ...place,
      key: v7(),
      doc: withPictures(text, own, others),
    })
    expect(post.status).toBe(200)
    const seen = await shown('kadri', post.body.id)
    expect(seen.html).toContain(`<img src="${own.url}" alt="The old mole"`)
    expect(seen.html).not.toContain(others.id)
    expect(seen.words).toBe(12) // what a picture shows is not what one has written
    expect((await (await world.as('kadri')).send('GET', own.url)).status).toBe(200)
    // a change keeps it, and brings in no other
    const again = { key: v7(), baseVersion: seen.version, doc: withPictures(`${text} Twice.`, others, own) }
    expect((await liv.send('PATCH', `/api/contributions/${post.body.id}`, again)).status).toBe(200)
    const changed = await shown('kadri', post.body.id)
    expect(changed.html).toContain(own.url)
    expect(changed.html).not.toContain(others.id)
  })

  it('are read in a peer review at an address that tells nothing of whose they are', async () => {
    const work = await world.contribution('oona', world.reports.id, 'entry')
    const id = v7()
    await world.db.insert(t.files).values({
      ...{ id, seminarId: world.seminar.id, madeBy: work.authorId, name: 'oona.png', type: 'image/png' },
      ...{ size: PNG.length, bytes: PNG },
    })
    await world.db
      .insert(t.contributionFiles)
      .values({ seminarId: world.seminar.id, contributionId: work.id, fileId: id, position: 0 })
    await world.db
      .update(t.contributions)
      .set({ html: `${work.html}<img src="/api/files/${id}" alt="A mole">` })
      .where(eq(t.contributions.id, work.id))
    const { id: allocationId } = await world.allocation(world.reports.id, { by: 'malin', of: 'oona' })
    const malin = await world.as('malin')
    const { body } = await malin.json<ReviewDesk>('GET', `/api/reviews/${allocationId}`)
    expect(JSON.stringify(body)).not.toContain(id)
    const address = /<img src="([^"]+)"/.exec(body.work!.html)![1]!
    expect(address).toBe(body.work!.files[0]!.url)
    expect((await malin.send('GET', address)).status).toBe(200)
    expect((await malin.send('GET', `/api/files/${id}`)).status).toBe(404)
  })
})
