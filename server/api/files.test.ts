import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { copyStoredFile, PIECE, wholeBytes } from '#server/services/files/storedBytes'
import { testWorld, type World } from '#server/testing/world'
import type { ComposerView } from '#shared/planning/composer'

const key = () => v7()

describe('files of a brief', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())

  it('of many pieces go out whole, by ranges, and not again to whoever has them', async () => {
    const ines = await world.as('ines')
    // a size that no piece ends at, and bytes that tell where they stand
    const head = Buffer.from('GIF89a')
    const bytes = Buffer.concat([head, Buffer.alloc(2_345_678)])
    for (let at = head.length; at < bytes.length; at++) bytes[at] = (at * 31 + (at >> 8)) & 255
    const id = key()
    const kept = await ines.json<{ url: string; size: number }>(
      'POST',
      `/api/seminars/${world.seminar.id}/files`,
      { id, name: 'map.gif', base64: bytes.toString('base64'), transcript: null },
    )
    expect(kept).toMatchObject({ status: 200, body: { size: bytes.length } })
    const get = async (headers: Record<string, string> = {}) => {
      const answer = await ines.send('GET', kept.body.url, undefined, headers)
      const body = Buffer.from(await answer.arrayBuffer())
      return { status: answer.status, headers: answer.headers, body }
    }
    const whole = await get()
    expect([whole.status, whole.headers.get('content-length')]).toEqual([200, String(bytes.length)])
    expect(whole.body.equals(bytes)).toBe(true)
    for (const [from, to] of [
      [0, 0],
      [PIECE - 1, PIECE],
      [PIECE, 2 * PIECE - 1],
      [999, 2_100_000],
      [bytes.length - 3, bytes.length - 1],
    ] as const) {
      const part = await get({ range: `bytes=${from}-${to}` })
      expect([part.status, part.headers.get('content-range')]).toEqual([
        206,
        `bytes ${from}-${to}/${bytes.length}`,
      ])
      expect(part.body.equals(bytes.subarray(from, to + 1)), `${from} to ${to}`).toBe(true)
    }
    const rest = await get({ range: `bytes=${bytes.length - 10}-` })
    expect([rest.status, rest.body.length]).toEqual([206, 10])
    expect((await get({ range: `bytes=${bytes.length}-` })).status).toBe(416)
    const again = await get({ 'if-none-match': whole.headers.get('etag')! })
    expect([again.status, again.body.length]).toEqual([304, 0])
    const copy = await copyStoredFile(world.db, id, {
      seminarId: world.seminar.id,
      madeBy: (await world.enrolment('henrik')).id,
    })
    expect((await wholeBytes(world.db, copy!)).equals(bytes)).toBe(true)
  })

  it('are what their bytes say, reach members only, and are never run', async () => {
    const ines = await world.as('ines')
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    )
    const up = (name: string, bytes: Buffer) =>
      ines.json<{ url: string; type: string }>('POST', `/api/seminars/${world.seminar.id}/files`, {
        id: key(),
        name,
        base64: bytes.toString('base64'),
        transcript: null,
      })
    const { body } = await up('map.html', png)
    expect(body.type).toBe('image/png')
    for (const evil of [
      '<html><script>alert(1)</script>',
      '<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)"/>',
      'MZ',
    ])
      expect((await up('map.png', Buffer.from(evil))).status).toBe(422)
    const got = await (await world.as('liv')).send('GET', body.url)
    expect([got.status, got.headers.get('content-type'), got.headers.get('x-content-type-options')]).toEqual([
      200,
      'image/png',
      'nosniff',
    ])
    expect(got.headers.get('content-security-policy')).toContain('sandbox')
    expect((await world.nobody.send('GET', body.url)).status).toBe(401)
    expect((await (await world.as('outsider')).send('GET', body.url)).status).toBe(404)
    const part = await ines.send('GET', body.url, undefined, { range: 'bytes=0-3' })
    expect([part.status, part.headers.get('content-range'), (await part.arrayBuffer()).byteLength]).toEqual([
      206,
      `bytes 0-3/${png.length}`,
      4,
    ])
    const image = {
      type: 'doc',
      content: [
        { type: 'image', attrs: { src: body.url, alt: 'A map' } },
        { type: 'image', attrs: { src: 'https://elsewhere.example/x.png' } },
        { type: 'paragraph', content: [{ type: 'inlineMath', attrs: { latex: 'd_0 <script>' } }] },
      ],
    }
    const { body: before } = await ines.json<ComposerView>('GET', `/api/activities/${world.essays.id}/plan`)
    expect(
      (
        await ines.send('PATCH', `/api/activities/${world.essays.id}/plan`, {
          key: key(),
          baseVersion: before.version,
          change: { brief: image },
          tell: false,
        })
      ).status,
    ).toBe(200)
    const [row] = await world.db.select().from(t.activities).where(eq(t.activities.id, world.essays.id))
    expect(row!.briefHtml).toContain(`<img src="${body.url}" alt="A map"`)
    expect(row!.briefHtml).not.toMatch(/elsewhere|<script/)
    expect(row!.briefHtml).toContain('<math')
  })
})
