import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import * as t from '#server/database/schema'
import { testWorld, type World } from '#server/testing/world'
import type { ComposerView } from '#shared/planning/composer'

const key = () => v7()

describe('files of a brief', () => {
  let world: World
  beforeAll(async () => {
    world = await testWorld()
  })
  afterAll(() => world.close())

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
