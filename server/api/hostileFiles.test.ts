import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { hostileFiles } from '#server/testing/hostileFiles'
import { pace } from '#server/testing/pace'
import { Client, testServer } from '#server/testing/server'
import { email, testWorld, type World } from '#server/testing/world'

interface Refused {
  readonly detail: string
  readonly fields?: Record<string, string>
}

let world: World
let server: Awaited<ReturnType<typeof testServer>>
beforeAll(async () => {
  world = await testWorld({ minutes: false })
  server = await testServer(world.databaseUrl, { JOVREL_READING_SECONDS: String(4 * pace()) })
})
afterAll(async () => {
  await server.stop()
  await world.close()
})
const as = (who: string) => new Client(server.address).signIn(email(who))

describe('files made to stop whoever reads them', () => {
  it('are read or refused in words, and others are answered meanwhile', async () => {
    const files = await hostileFiles() // before anybody comes in: making them takes longer than a server keeps a connection
    const [ines, liv] = await Promise.all([as('ines'), as('liv')])
    expect(files.length).toBeGreaterThanOrEqual(40)
    const told: Record<string, string> = {}
    const waiting = [...files]
    let unread = files.length
    const readInTurn = async () => {
      for (let file = waiting.shift(); file; file = waiting.shift()) {
        const { name, bytes, transcript = null } = file
        const base64 = Buffer.from(bytes).toString('base64')
        const text = { key: v7(), id: v7(), name, base64, transcript }
        const { status, body } = await ines.json<Refused>(
          'POST',
          `/api/seminars/${world.seminar.id}/texts`,
          text,
        )
        told[name] = `${status} ${Object.values(body.fields ?? {})[0] ?? ''}`.trim()
        expect([200, 413, 422], `${name}: ${told[name]}`).toContain(status)
        if (status !== 200) expect(body.detail, name).toMatch(/[.?]$/)
        unread--
      }
    }
    // somebody else goes on working, and is answered again and again
    let answered = 0
    const workOn = async () => {
      while (unread > 0) {
        expect((await liv.send('GET', `/api/seminars/${world.seminar.id}`)).status).toBe(200)
        answered++
      }
    }
    // as many are read at once as there are threads for it
    const reading = Promise.all([readInTurn(), readInTurn()]).catch((error: unknown) => {
      unread = 0
      throw error
    })
    await Promise.all([reading, workOn()])
    expect(answered).toBeGreaterThan(files.length)
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
