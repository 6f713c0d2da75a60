import { and, eq, inArray, sql } from 'drizzle-orm'
import { unzipSync, strFromU8 } from 'fflate'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { rowsOf, type Database } from '#server/database/client'
import { Client } from '#server/testing/server'
import { doc, email, testWorld, type World } from '#server/testing/world'
import type { ErasePreview } from '#shared/keeping/archive'
import type { VoicesView } from '#shared/voices/voices'

const bytesOf = async (answer: Response) => new Uint8Array(await answer.arrayBuffer())
/** Everything in a database as text, table by table. */
async function dump(db: Database): Promise<string> {
  const tables = await rowsOf<{ name: string }>(
    db,
    sql`select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'`,
  )
  const parts: string[] = []
  for (const { name } of tables)
    for (const { line } of await rowsOf<{ line: string }>(
      db,
      sql`select to_jsonb(r)::text as line from ${sql.identifier(name)} r`,
    ))
      parts.push(`${name} ${line}`)
  return parts.join('\n')
}

describe('what is kept of one person', () => {
  let world: World
  let [ines, petra, liv]: Client[] = []
  beforeAll(async () => {
    world = await testWorld()
    ;[ines, petra, liv] = await Promise.all(['ines', 'petra', 'liv'].map(who => world.as(who)))
  })
  afterAll(() => world.close())
  const s = (rest: string) => `/api/seminars/${world.seminar.id}${rest}`

  it('is theirs as a file: all of it to themselves, without the words of drafts to staff, and nothing that is others’ or held', async () => {
    await liv!.send('PUT', `/api/activities/${world.dredge.id}/draft`, {
      parentId: null,
      doc: doc('A draft only Liv has seen.'),
      baseVersion: null,
    })
    await world.db
      .update(t.marks)
      .set({ markerNote: 'Unspeakable note.' })
      .where(eq(t.marks.enrolmentId, (await world.enrolment('liv')).id))
    const own = unzipSync(await bytesOf(await liv!.send('GET', s('/own-data'))))
    const data = JSON.parse(strFromU8(own['data.json']!)) as {
      person: { email: string }
      contributions: Array<{ id: string; text?: string }>
      letters: unknown[]
    }
    const me = await world.enrolment('liv')
    const rows = await world.db
      .select({ id: t.contributions.id, text: t.contributions.text })
      .from(t.contributions)
      .where(eq(t.contributions.authorId, me.id))
    expect(data.contributions.map(c => c.text).sort()).toEqual(rows.map(r => r.text).sort())
    // a review’s id would tell whose work it is of
    const reviews = await world.db
      .select({ id: t.contributions.id, entry: t.contributions.parentId })
      .from(t.contributions)
      .where(and(eq(t.contributions.authorId, me.id), eq(t.contributions.type, 'review')))
    expect(reviews.length).toBeGreaterThan(0)
    for (const id of reviews.flatMap(r => [r.id, ...(r.entry ? [r.entry] : [])]))
      expect(strFromU8(own['data.json']!)).not.toContain(id)
    expect(data.person.email).toBe(email('liv'))
    expect(data.letters).toHaveLength(
      await world.db.$count(t.marks, and(eq(t.marks.enrolmentId, me.id), sql`returned is not null`)),
    )
    const all = Object.values(own)
      .map(b => strFromU8(b))
      .join('\n')
    expect(all).toContain('A draft only Liv has seen.')
    expect(all).not.toMatch(/Unspeakable note|saoirse@|reviewerId/)
    const given = unzipSync(await bytesOf(await ines!.send('GET', s(`/people/${me.id}/data`))))
    expect(
      Object.values(given)
        .map(b => strFromU8(b))
        .join('\n'),
    ).not.toContain('only Liv has seen')
  })

  it('can be erased: the name is nowhere any more, and every count and mark stays', async () => {
    const who = await world.enrolment('petra')
    const [row] = await world.db
      .select({ id: t.contributions.id })
      .from(t.contributions)
      .where(and(eq(t.contributions.authorId, who.id), eq(t.contributions.state, 'shown')))
    await liv!.send('POST', `/api/activities/${world.dredge.id}/contributions`, {
      key: v7(),
      parentId: null,
      doc: doc('As Petra Lindqvist says, and LINDQVIST, PETRA said before; Lindqvist is right.'),
    })
    await world.db.insert(t.files).values({
      seminarId: world.seminar.id,
      madeBy: who.id,
      name: 'Petra Lindqvist.webm',
      type: 'audio/webm',
      size: 4,
      transcript: 'WEBVTT',
      bytes: Buffer.from('abcd'),
    })
    await world.db
      .update(t.wikiPages)
      .set({ title: 'Houses of Petra Lindqvist', titleKey: 'houses of petra lindqvist' })
      .where(eq(t.wikiPages.id, (await world.page(world.city.id, 'Qasr el-Mina', 'The chain')).id))
    await world.db.insert(t.messageThreads).values({
      seminarId: world.seminar.id,
      studentId: who.id,
      startedBy: (await world.enrolment('ines')).id,
      subject: 'Petra',
      sendingId: v7(),
      toldAt: new Date(),
      lastAt: new Date(),
      madeAt: new Date(),
    })
    // a letter as it was before points were taken for it
    const [letter] = await world.db.select().from(t.marks).where(eq(t.marks.enrolmentId, who.id))
    const { state, savedAt, markedBy } = letter!
    await world.db
      .update(t.marks)
      .set({
        beforeTake: {
          version: 1,
          mark: {
            ...{ state, steps: [], rubricVersionId: null, letter: doc('Dear Petra Lindqvist, go on.') },
            ...{ overridePoints: null, overrideReason: 'Petra was ill.', reviewing: null, takenFrom: null },
            ...{ heldAt: null, savedAt: savedAt.toISOString(), markedBy },
          },
        },
      })
      .where(eq(t.marks.id, letter!.id))
    const voices = async () => (await ines!.json<VoicesView>('GET', s('/voices'))).body
    const grades = async () =>
      JSON.parse(
        JSON.stringify(
          (await ines!.json<{ rows: Array<{ enrolmentId: string }> }>('GET', s('/gradebook'))).body,
        ).replaceAll(/"(name|givenName|familyName|initials|number|studentNumber|email)":"[^"]*"/g, '"$1":""'),
      ) as { rows: Array<{ enrolmentId: string }> }
    const byId = (rows: Array<{ enrolmentId: string }>) => new Map(rows.map(r => [r.enrolmentId, r]))
    const [heard, marked] = [await voices(), await grades()]
    const erase = (name: string) =>
      ines!.json<{ name: string }>('POST', s(`/people/${who.id}/erase`), { name, pointing })
    // elsewhere the first name alone may be anybody's: staff are shown where, and say what points to her
    const liv2 = await world.contribution('liv', world.breakwater.id)
    const kadri = await world.contribution('kadri', world.breakwater.id)
    const write = (id: string, text: string, state = 'shown' as 'shown' | 'draft') =>
      world.db.update(t.contributions).set({ text, state }).where(eq(t.contributions.id, id))
    await write(liv2.id, 'Petra counted, see https://x.example/Petra and petra@northmere.example.')
    await write(kadri.id, 'Petra is a city of stone.')
    const { body: preview } = await ines!.json<ErasePreview>('GET', s(`/people/${who.id}/erase`))
    const shown = preview.places.map(p => p.before + p.exact + p.after)
    expect(shown).toContainEqual(
      expect.stringMatching(/^Petra counted, see https:\/\/x.example\/Petra and former/),
    )
    expect(shown).toContain('Petra is a city of stone.')
    const pointing = [`contributions:${liv2.id}`]
    expect((await erase('Petra')).status).toBe(422)
    expect((await erase('petra lindqvist')).body.name).toBe('Former student 1')
    const texts = await world.db
      .select({ text: t.contributions.text })
      .from(t.contributions)
      .where(inArray(t.contributions.id, [liv2.id, kadri.id]))
    expect(texts.map(c => c.text).sort()).toEqual([
      'Petra is a city of stone.',
      'student counted, see https://x.example/Petra and former.student@erased.invalid.',
    ])
    const left = await dump(world.db)
    const found = left.split('\n').filter(l => /Lindqvist|petra@|N4113/i.test(l))
    expect(found.map(l => l.slice(0, 200))).toEqual([])
    // to and by them the given name, too, is gone
    const near = left
      .split('\n')
      .filter(l => l.startsWith('marks ') && l.includes(who.id) && /\bPetra\b/.test(l))
    expect(near).toEqual([])
    expect(left).toContain('former student')
    const after = await voices()
    const one = (v: VoicesView) => {
      const {
        name: _n,
        givenName: _g,
        familyName: _f,
        initials: _i,
        quiet: _q,
        ...figures
      } = v.people.find(p => p.id === who.id)!
      return figures
    }
    expect(one(after).contributions).toBe(one(heard).contributions)
    expect([one(after).words, one(after).answeredBy, one(after).daysActive]).toEqual([
      one(heard).words,
      one(heard).answeredBy,
      one(heard).daysActive,
    ])
    expect(byId((await grades()).rows).get(who.id)).toEqual(byId(marked.rows).get(who.id))
    expect(
      (await world.db.select().from(t.contributions).where(eq(t.contributions.id, row!.id)))[0],
    ).toBeDefined()
    expect(
      (
        await world.db
          .select()
          .from(t.files)
          .where(and(eq(t.files.madeBy, who.id), eq(t.files.type, 'audio/webm')))
      )[0],
    ).toMatchObject({ size: 0, transcript: 'WEBVTT' })
    expect((await petra!.send('GET', s(''))).status).toBe(401)
    await expect(world.as('petra')).rejects.toThrow('could not sign in')
    expect((await ines!.send('GET', `/api/activities/${world.breakwater.id}/contributions`)).status).toBe(200)
  })
})
