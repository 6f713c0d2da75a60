import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { testWorld, type World } from '#server/testing/world'

const VTT = 'WEBVTT\n\n00:00:01.000 --> 00:00:04.000\n<v Ines>The toll began in 1612.\n'

describe('a transcript of a recording', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())

  /** A file of somebody, with a contribution of theirs or, of staff, with nothing. */
  async function fileOf(who: string, type: string) {
    const madeBy = (await world.enrolment(who)).id
    const id = v7()
    const file = { id, madeBy, type, name: 'spoken', size: 1, bytes: Buffer.from('x') }
    await world.db.insert(t.files).values({ ...file, seminarId: world.seminar.id })
    return `/api/files/${id}/transcript`
  }
  const put = async (who: string, address: string, transcript: string | null) =>
    (await world.as(who)).json<{ before: string | null; fields?: Record<string, string>; detail?: string }>(
      'PUT',
      address,
      { transcript },
    )

  it('is added at any time by who made it or by staff, is read by whoever may hear it, and goes back', async () => {
    const address = await fileOf('ines', 'video/webm')
    expect((await put('henrik', address, VTT)).body).toEqual({ before: null })
    const read = async (who: string) => (await (await world.as(who)).send('GET', address)).text()
    expect(await read('liv')).toBe(VTT)
    const other = await put('liv', address, VTT)
    expect([other.status, other.body.detail]).toEqual([403, expect.stringMatching(/who made it/)])
    expect((await put('outsider', address, VTT)).status).toBe(404)
    expect((await put('observer', address, VTT)).status).toBe(403)
    expect((await put('ines', address, null)).body).toEqual({ before: VTT })
    expect(await read('liv')).toBe('WEBVTT\n')
    const own = await fileOf('liv', 'audio/ogg')
    expect((await put('liv', own, VTT)).status).toBe(200)
    expect((await put('kadri', own, VTT)).status).toBe(404)
  })

  it('is refused with a sentence at its place when it is none, or what it is for is no recording', async () => {
    const address = await fileOf('ines', 'video/webm')
    for (const [text, sentence] of [
      ['The toll began.', /first line is not WEBVTT/],
      ['WEBVTT\n', /not a line/],
      ['WEBVTT\n\n00:09 --> 00:01\nNo.', /line 3/],
    ] as const) {
      const { status, body } = await put('ines', address, text)
      expect([status, body.fields!.transcript]).toEqual([422, expect.stringMatching(sentence)])
    }
    const paper = await put('ines', await fileOf('ines', 'application/pdf'), VTT)
    expect([paper.status, paper.body.fields!.transcript]).toEqual([
      422,
      expect.stringMatching(/heard or seen/),
    ])
  })
})
