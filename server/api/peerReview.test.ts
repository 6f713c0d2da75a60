import { FIVE, peerReviewIn, type PeerReviewActs, type Refused } from '#server/testing/peerReview'
import { eq } from 'drizzle-orm'
import { strToU8, zipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import type { RepairView } from '#shared/marking/peers'
import * as t from '#server/database/schema'
import { doc, testWorld, words, type World } from '#server/testing/world'

describe('a peer review from hand-in to mark', () => {
  let world: World
  let { base, as, set, times, handIn, own, peers, staff } = {} as PeerReviewActs
  beforeAll(async () => {
    world = await testWorld({ minutes: false })
    ;({ base, as, set, times, handIn, own, peers, staff } = await peerReviewIn(world))
  })
  afterAll(() => world.close())

  it('takes work in once from each, in the ways it is taken, to be changed or taken back until the end; nothing is dealt before', async () => {
    expect((await handIn('liv', '')).body.fields.doc).toContain('nothing to hand in')
    const first = await handIn('liv', `Liv on marks. ${words(300)}`)
    expect(first.status).toBe(200)
    expect((await handIn('liv', words(300))).body.fields.doc).toContain('in already')
    const liv = await as('liv')
    const text = (await liv.json<{ version: number }>('GET', `/api/contributions/${first.body.id}`)).body
    expect(
      (
        await liv.send('PATCH', `/api/contributions/${first.body.id}`, {
          key: v7(),
          doc: doc(`Changed. ${words(300)}`),
          baseVersion: text.version,
        })
      ).status,
    ).toBe(200)
    expect(
      (await liv.send('PUT', `/api/contributions/${first.body.id}/withdrawn`, { withdrawn: true })).status,
    ).toBe(200)
    expect((await handIn('liv', `Anew. ${words(300)}`)).status).toBe(200)
    for (const who of FIVE.slice(1))
      expect((await handIn(who, `By somebody. ${words(280)}`)).status).toBe(200)
    expect(
      (
        await (
          await as('ines')
        ).json<Refused>('POST', `${base}/contributions`, { key: v7(), parentId: null, doc: doc('Mine.') })
      ).body.fields.doc,
    ).toContain('handed in by students')
    // on paper: ticked off by staff, counted without words, taken back while nobody reviews it
    const paz = (await world.enrolment('paz')).id
    const tick = async (handedIn: boolean) =>
      (await as('henrik')).json<Refused>('PUT', `${base}/hand-in/paper`, {
        key: v7(),
        enrolmentId: paz,
        handedIn,
      })
    expect((await tick(true)).status).toBe(200)
    expect((await own('paz')).handIn.onPaper).toBe(true)
    expect((await tick(false)).status).toBe(200)
    expect((await peers()).notHandedIn).toContain(paz)
    const early = await staff('deal', { key: v7(), seed: 1 })
    expect([early.status, early.body.code]).toEqual([409, 'handInOpen'])
    // nobody else reads what is handed in
    const nico = await (await as('nico')).json<{ contributions: unknown[] }>('GET', `${base}/contributions`)
    expect(nico.body.contributions).toHaveLength(1)
  })

  it('finds names before they go in, in the text and in the document, everyone’s alike', async () => {
    const bytes = zipSync({
      '[Content_Types].xml': strToU8(
        '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
      ),
      '_rels/.rels': strToU8(
        '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
      ),
      'docProps/core.xml': strToU8(
        '<cp:coreProperties xmlns:cp="c" xmlns:dc="d"><dc:creator>Emrys Tal</dc:creator></cp:coreProperties>',
      ),
      'word/document.xml': strToU8(
        '<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body><w:p><w:r><w:t>Written by Emrys Tal, for Oona.</w:t></w:r></w:p></w:body></w:document>',
      ),
    })
    const id = v7()
    const emrys = await as('emrys')
    expect(
      (
        await emrys.send('POST', `${base}/files`, {
          id,
          name: 'emrys-tal.docx',
          base64: Buffer.from(bytes).toString('base64'),
          transcript: null,
        })
      ).status,
    ).toBe(200)
    const found = await emrys.json<{ found: Array<{ exact: string; isOwn: boolean }> }>(
      'POST',
      `${base}/hand-in/names`,
      { text: 'As I said to emrys@northmere.example, N4121.', fileIds: [id] },
    )
    expect(found.body.found.map(f => [f.exact, f.isOwn])).toEqual([
      ['emrys@northmere.example', true],
      ['N4121', true],
      ['Emrys Tal', true],
      ['Oona', false],
    ])
    const [stored] = await world.db.select().from(t.files).where(eq(t.files.id, id))
    expect(stored!.bytes.includes(Buffer.from('Emrys Tal</dc:creator>'))).toBe(false)
    expect((await handIn('emrys', 'A note.', [id])).status).toBe(200)
  })

  it('deals each their number, takes somebody late in by moving what nobody has opened, and never takes an opened one away', async () => {
    await times(30, 20, -48)
    expect((await staff('deal', { key: v7(), seed: 7 })).status).toBe(200)
    let view = await peers()
    expect(view.allocations).toHaveLength(12)
    for (const p of [...FIVE, 'emrys']) {
      const id = (await world.enrolment(p)).id
      expect(view.allocations.filter(a => a.reviewerId === id)).toHaveLength(2)
      expect(view.allocations.filter(a => a.subjectId === id)).toHaveLength(2)
      expect(view.allocations.some(a => a.reviewerId === id && a.subjectId === id)).toBe(false)
    }
    // the reviewer of a file gets it under another name, at another address
    const reader = view.allocations.find(
      a => a.subjectId === view.people.find(p => p.givenName === 'Emrys')!.id,
    )!
    const key = FIVE.find(
      k => view.people.find(p => p.id === reader.reviewerId)!.givenName.toLowerCase() === k,
    )!
    const file = await (await as(key)).send('GET', `/api/reviews/${reader.id}/files/0`)
    expect([file.status, file.headers.get('content-disposition')]).toEqual([
      200,
      "attachment; filename*=UTF-8''Work%201.docx",
    ])
    expect(
      await (await (await as(key)).send('GET', `/api/reviews/${reader.id}/files/0?text=1`)).text(),
    ).toContain('Written by')
    // one is opened; then somebody hands in late
    const opened = view.allocations.find(a => a.id !== reader.id && a.reviewerId !== reader.reviewerId)!
    await (await as(await keyOf(opened.reviewerId))).send('PUT', `/api/reviews/${opened.id}/opened`)
    expect((await handIn('tomasz', `Late. ${words(300)}`)).status).toBe(200)
    view = await peers()
    expect(
      view.works.find(w => w.authorId === view.people.find(p => p.givenName === 'Tomasz')!.id)!.lateMinutes,
    ).toBeGreaterThan(0)
    const before = new Set(view.allocations.map(a => `${a.reviewerId}:${a.entryId}`))
    // what its reader, who gives no more, has only looked at goes to somebody else; what is begun stays
    const isFreed = async () =>
      (await staff<RepairView>('repair', { idle: [opened.reviewerId] })).body.remove.some(
        p => p.reviewerId === opened.reviewerId && p.entryId === opened.entryId,
      )
    expect(await isFreed()).toBe(true)
    const nothing = { points: {}, remarks: {}, answers: {}, passages: [], baseVersion: null }
    const begun = await (
      await as(await keyOf(opened.reviewerId))
    ).send('PUT', `/api/reviews/${opened.id}`, { ...nothing, private: 'Begun.' })
    expect(begun.status).toBe(200)
    expect(await isFreed()).toBe(false)
    const repair = (await staff<RepairView>('repair', {})).body
    expect(repair.remove).toHaveLength(2)
    expect(
      (
        await staff(
          'pairs',
          { key: v7(), baseVersion: repair.baseVersion, add: repair.add, remove: repair.remove },
          'PUT',
        )
      ).status,
    ).toBe(200)
    const stale = await staff(
      'pairs',
      { key: v7(), baseVersion: repair.baseVersion, add: [], remove: [] },
      'PUT',
      'henrik',
    )
    expect([stale.status, stale.body.code]).toEqual([409, 'changedMeanwhile'])
    view = await peers()
    expect(view.allocations).toHaveLength(14)
    expect(view.allocations.filter(a => !before.has(`${a.reviewerId}:${a.entryId}`))).toHaveLength(4)
    expect(view.allocations.some(a => a.id === opened.id)).toBe(true)
    const taken = await staff(
      'pairs',
      {
        key: v7(),
        baseVersion: view.version,
        add: [],
        remove: [{ reviewerId: opened.reviewerId, entryId: opened.entryId }],
      },
      'PUT',
    )
    expect([taken.status, taken.body.code]).toEqual([409, 'begun'])
    expect((await staff('deal', { key: v7(), seed: 3 })).body.code).toBe('begun')
    const self = view.works[0]!
    expect(
      (
        await staff(
          'pairs',
          {
            key: v7(),
            baseVersion: view.version,
            add: [{ reviewerId: self.authorId, entryId: self.id }],
            remove: [],
          },
          'PUT',
        )
      ).body.fields.add,
    ).toContain('their own work')
    // dealt work is nobody's to change any more
    const liv = await world.contribution('liv', world.essays.id, 'entry')
    expect(
      (
        await (
          await as('liv')
        ).json<Refused>('PUT', `/api/contributions/${liv.id}/withdrawn`, { withdrawn: true })
      ).status,
    ).toBe(422)
  })

  it('says what is impossible, with the largest number and who stands in the way', async () => {
    await world.db.delete(t.allocations).where(eq(t.allocations.activityId, world.essays.id))
    await set({ each: 9, remarkWords: 3 })
    const refused = await staff('deal', { key: v7(), seed: 7 })
    expect(refused.body.fields.each).toMatch(
      /9 reviews each cannot be dealt: .+ may review only 6\. 6 each is the most/,
    )
    await set({
      each: 2,
      remarkWords: 3,
      questions: [{ id: v7(), text: 'What would you ask?', model: 'A model question.', minWords: 2 }],
    })
    const [liv, nico] = await Promise.all([world.enrolment('liv'), world.enrolment('nico')])
    expect((await staff('apart', { pairs: [[liv.id, nico.id]] }, 'PUT')).status).toBe(200)
    expect((await staff('deal', { key: v7(), seed: 7 })).status).toBe(200)
    const view = await peers()
    expect(
      view.allocations.some(
        a => [liv.id, nico.id].includes(a.reviewerId) && [liv.id, nico.id].includes(a.subjectId),
      ),
    ).toBe(false)
  })

  async function keyOf(enrolmentId: string): Promise<string> {
    const [row] = await world.db
      .select({ email: t.persons.email })
      .from(t.enrolments)
      .innerJoin(t.persons, eq(t.persons.id, t.enrolments.personId))
      .where(eq(t.enrolments.id, enrolmentId))
    return row!.email.split('@')[0]!
  }
})
