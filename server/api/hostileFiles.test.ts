import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { hostileFiles } from '#server/testing/hostileFiles'
import { testWorld, type World } from '#server/testing/world'

interface Refused {
  readonly detail: string
  readonly fields?: Record<string, string>
}

let world: World
beforeAll(async () => {
  world = await testWorld({ own: true, minutes: false })
})
afterAll(() => world.close())

describe('files made to stop whoever reads them', () => {
  it('are read or refused in words, and others are answered meanwhile', async () => {
    const [ines, liv] = await Promise.all([world.as('ines'), world.as('liv')])
    const files = await hostileFiles()
    expect(files.length).toBeGreaterThanOrEqual(40)
    const told: Record<string, string> = {}
    for (const { name, bytes, transcript = null } of files) {
      let isRead = false
      let answered = 0
      const reading = ines
        .json<Refused>('POST', `/api/seminars/${world.seminar.id}/texts`, {
          key: v7(),
          id: v7(),
          name,
          base64: Buffer.from(bytes).toString('base64'),
          transcript,
        })
        .finally(() => {
          isRead = true
        })
      // somebody else goes on working
      while (!isRead) {
        const answer = await liv.send('GET', `/api/seminars/${world.seminar.id}`)
        expect(answer.status, name).toBe(200)
        answered++
      }
      const { status, body } = await reading
      told[name] = `${status} ${Object.values(body.fields ?? {})[0] ?? ''}`.trim()
      expect([200, 413, 422], `${name}: ${told[name]}`).toContain(status)
      if (status !== 200) expect(body.detail, name).toMatch(/[.?]$/)
      expect(answered, name).toBeGreaterThan(0)
    }
    // what is locked, broken or swollen is told from what can be read
    expect(told).toMatchObject({
      'locked.pdf': expect.stringContaining('password'),
      'half.docx': expect.stringContaining('422'),
      'unpacks.docx': expect.stringContaining('422'),
      'unpacks.epub': expect.stringContaining('422'),
      'half.pdf': expect.stringContaining('422'),
    })
  })
})
