import { and, eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { plainText } from '#core/contributing/richText'
import * as t from '#server/database/schema'
import type { Client } from '#server/testing/server'
import { testWorld, type World } from '#server/testing/world'
import type { RecordView } from '#shared/marking/desk'

describe('a record on the marking desk', () => {
  let world: World
  let ines: Client
  beforeAll(async () => {
    world = await testWorld()
    ines = await world.as('ines')
  })
  afterAll(() => world.close())

  it('knows the prompt an entry is to, the words of files that were handed in, and when each was due for its student', async () => {
    const record = async (activityId: string, student: string) =>
      (await ines.json<RecordView>('GET', `/api/activities/${activityId}/records/${student}`)).body
    const [entry] = await world.db
      .select({ entry: t.contributions, doc: t.prompts.doc, position: t.prompts.position })
      .from(t.contributions)
      .innerJoin(t.prompts, eq(t.prompts.id, t.contributions.promptId))
      .where(eq(t.contributions.state, 'shown'))
    const journal = await record(entry!.entry.activityId, entry!.entry.authorId)
    const { prompt } = journal.items.find(i => i.id === entry!.entry.id)!
    expect(prompt!.number).toBe(entry!.position + 1)
    expect(plainText(entry!.doc)).toContain(prompt!.text.replace(/ …$/, ''))
    // a document and a paper whose words were counted when they came
    const [work] = await world.db
      .select()
      .from(t.contributions)
      .where(and(eq(t.contributions.activityId, world.reports.id), eq(t.contributions.state, 'shown')))
    const file = { seminarId: world.seminar.id, madeBy: work!.authorId, size: 1, bytes: Buffer.from('x') }
    const files = await world.db
      .insert(t.files)
      .values([
        { ...file, name: 'a.docx', type: 'application/x', words: 3 },
        { ...file, name: 'b.pdf', type: 'application/pdf', words: 2 },
        { ...file, name: 'c.png', type: 'image/png' },
      ])
      .returning({ id: t.files.id })
    const before = (await record(world.reports.id, work!.authorId)).items.find(i => i.id === work!.id)!
    await world.db.insert(t.contributionFiles).values(
      files.map(({ id }, i) => ({
        seminarId: world.seminar.id,
        contributionId: work!.id,
        fileId: id,
        position: 50 + i,
      })),
    )
    const after = await record(world.reports.id, work!.authorId)
    const item = after.items.find(i => i.id === work!.id)!
    expect([item.fileWords - before.fileWords, item.words]).toEqual([5, before.words])
    // an extension moves what was due for its student alone
    const liv = await world.enrolment('liv')
    const [was] = (await record(world.dredge.id, liv.id)).dues
    const dueAt = new Date(new Date(was!).getTime() + 90 * 86_400_000).toISOString()
    await ines.send('PUT', `/api/activities/${world.dredge.id}/extensions/${liv.id}`, {
      dueAt,
      reason: 'Ill.',
    })
    expect((await record(world.dredge.id, liv.id)).dues[0]).toBe(dueAt)
    await ines.send('DELETE', `/api/activities/${world.dredge.id}/extensions/${liv.id}`)
  })
})
