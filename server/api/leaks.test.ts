import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { doc, testWorld, type World } from '#server/testing/world'
import { v7 } from 'uuid'

/** Everything a student can fetch: data routes and the pages rendered on the server. */
const reachable = (w: World) => [
  `/api/seminars/${w.seminar.id}`,
  ...[
    'plan',
    'week',
    'letters',
    'marking',
    'grades',
    'gradebook',
    'phrases',
    'results?form=csv',
    'results?form=zip',
  ].map(r => `/api/seminars/${w.seminar.id}/${r}`),
  ...[w.breakwater, w.dredge, w.pilot, w.essays].flatMap(a => [
    `/api/activities/${a.id}`,
    ...[
      'contributions',
      'desk',
      'letter',
      'find?q=silt',
      'find?q=shippers',
      'export?as=html',
      'export?as=md',
      'export?as=json',
      'feed',
      'look-alikes',
      'plan',
      'distribution',
      'rubric-move',
    ].map(r => `/api/activities/${a.id}/${r}`),
  ]),
  ...['find?q=silt', 'find?q=shippers', 'notices', 'groups'].map(r => `/api/seminars/${w.seminar.id}/${r}`),
  ...['plan', 'week', 'feedback', 'marking', 'grades', 'gradebook'].map(
    p => `/seminars/${w.seminar.id}/${p}`,
  ),
  ...[w.breakwater, w.dredge].flatMap(a =>
    ['', '/letter', '/desk', '/criteria', '/distribution'].map(
      p => `/seminars/${w.seminar.id}/activities/${a.id}${p}`,
    ),
  ),
]

describe('what a student can reach', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())

  async function everything(who: string): Promise<string> {
    const client = await world.as(who)
    const ids = await world.db
      .select({ id: t.enrolments.id })
      .from(t.enrolments)
      .where(eq(t.enrolments.role, 'student'))
    const paths = [
      ...reachable(world),
      ...ids.map(e => `/api/activities/${world.breakwater.id}/records/${e.id}`),
    ]
    const texts = await Promise.all(paths.map(async p => (await client.send('GET', p)).text()))
    return texts.join('\n').replaceAll('\\u2019', '’').replaceAll('&#39;', "'")
  }

  it("never holds another's letter, marks, drafts or notes", async () => {
    const all = await everything('liv')
    expect(all).toContain('the receipt the fishermen asked for') // her own letter: the search itself works
    expect(all).toContain('five of them belong to men') // her own draft
    for (const secret of [
      'Is there an institution you do not like', // Rasmus's letter
      'The measuring is a scene', // Nico's, held
      'ask about Wednesday evenings',
      'ask whether the Sunday deadline', // marker's notes
      'which waves shall count',
      'who is still paying', // drafts
      'Nine hours',
      'markerNote',
      'letterText',
      'passwordHash',
    ])
      expect(all).not.toContain(secret)
  })

  it('never holds a mark that is held', async () => {
    // Nico's held mark has 19 of 25; nothing he can reach says so, in whatever form
    const grades = (await (
      await (await world.as('nico')).send('GET', `/api/seminars/${world.seminar.id}/grades`)
    ).json()) as { columns: Array<{ id: string }>; row: { points: Array<number | null> } }
    expect(grades.row.points[grades.columns.findIndex(c => c.id === world.breakwater.id)]).toBeNull()
    const all = await everything('nico')
    expect(all).not.toContain('The crime and the custom')
    expect(all).not.toContain('"standing":"held"')
  })

  it("holds nothing of others' words, names of writers or counts until one's own is in", async () => {
    const paz = await world.as('paz')
    const shown = await world.db
      .select({ id: t.contributions.id, text: t.contributions.text })
      .from(t.contributions)
      .where(eq(t.contributions.activityId, world.dredge.id))
    expect(shown.length).toBeGreaterThan(20)
    // a feed of her own, the texts asked for one by one, the files that came with them
    const made = await paz.json<{ address: string }>('POST', `/api/activities/${world.dredge.id}/feed`)
    const [file] = await world.db
      .insert(t.files)
      .values({
        seminarId: world.seminar.id,
        madeBy: (await world.enrolment('rasmus')).id,
        name: 'rasmus.png',
        type: 'image/png',
        size: 1,
        bytes: Buffer.from('x'),
      })
      .returning()
    await world.db
      .insert(t.contributionFiles)
      .values({ seminarId: world.seminar.id, contributionId: shown[0]!.id, fileId: file!.id, position: 0 })
    expect((await paz.send('GET', `/api/files/${file!.id}`)).status).toBe(404)
    const further = await Promise.all(
      [
        new URL(made.body.address).pathname,
        `${new URL(made.body.address).pathname.replace('.atom', '')}/${file!.id}`,
        `/api/activities/${world.dredge.id}/texts?ids=${shown
          .slice(0, 50)
          .map(c => c.id)
          .join(',')}`,
      ].map(async path => (await paz.send('GET', path)).text()),
    )
    const all = [await everything('paz'), ...further].join('\n')
    for (const { id, text } of shown) {
      expect(all).not.toContain(id)
      expect(all).not.toContain(text.slice(0, 40))
    }
    const thread = await paz.json<Record<string, unknown>>(
      'GET',
      `/api/activities/${world.dredge.id}/contributions`,
    )
    expect(thread.body).toMatchObject({ waiting: true, contributions: [], notHeard: [] })
    expect(
      JSON.stringify((await paz.json('GET', `/api/seminars/${world.seminar.id}/plan`)).body),
    ).not.toContain('"underWay":')
    // a reply to what one may not read is refused like one to what is not there, and stores nothing
    const hidden = shown.find(c => c.text.startsWith('I speak for the grain shippers'))!
    const refused = await paz.json<{ fields: Record<string, string> }>(
      'POST',
      `/api/activities/${world.dredge.id}/contributions`,
      { key: v7(), parentId: hidden.id, doc: doc('I answer what I cannot see.') },
    )
    const missing = await paz.json<{ fields: Record<string, string> }>(
      'POST',
      `/api/activities/${world.dredge.id}/contributions`,
      { key: v7(), parentId: v7(), doc: doc('I answer what I cannot see.') },
    )
    expect(refused.status).toBe(422)
    expect(refused.body).toEqual(missing.body)
    expect((await paz.send('PUT', `/api/contributions/${hidden.id}/nod`, { nodded: true })).status).toBe(404)
    // and everything once it is in
    expect(
      (
        await paz.send('POST', `/api/activities/${world.dredge.id}/contributions`, {
          key: v7(),
          parentId: null,
          doc: doc('I speak for the bridge keeper.'),
        })
      ).status,
    ).toBe(200)
    const after = await paz.json<{ waiting: boolean; contributions: unknown[] }>(
      'GET',
      `/api/activities/${world.dredge.id}/contributions`,
    )
    expect(after.body.waiting).toBe(false)
    expect(after.body.contributions.length).toBeGreaterThan(25)
  })

  it('never shows staff the words of a draft, only that it was begun and how long it is', async () => {
    const ines = await world.as('ines')
    const anselm = await world.enrolment('anselm')
    const record = await ines.send('GET', `/api/activities/${world.breakwater.id}/records/${anselm.id}`)
    const text = await record.text()
    expect(text).not.toContain('which waves shall count')
    expect(JSON.parse(text).draftsBegun).toMatchObject([{ words: 34 }])
    expect(JSON.parse(text).student.standing).toBe('underWay')
  })
})
