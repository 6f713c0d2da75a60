import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { hostileFiles, type HostileFile } from '#server/testing/hostileFiles'
import { pace } from '#server/testing/pace'
import { Client, testServer } from '#server/testing/server'
import { email, testWorld, type World } from '#server/testing/world'

interface Refused {
  readonly detail: string
  readonly fields?: Record<string, string>
}

let world: World
let server: Awaited<ReturnType<typeof testServer>>
let files: HostileFile[]
beforeAll(async () => {
  files = await hostileFiles()
  world = await testWorld({ minutes: false })
  server = await testServer(world.databaseUrl, { JOVREL_READING_SECONDS: String(pace()) })
})
afterAll(async () => {
  await server.stop()
  await world.close()
})
const as = (who: string) => new Client(server.address).signIn(email(who))

/** What adding a text was answered: its status, and the sentence if it was refused. */
async function add(client: Client, { name, bytes, transcript }: HostileFile): Promise<string> {
  const base64 = Buffer.from(bytes).toString('base64')
  const text = { key: v7(), id: v7(), name, base64, transcript: transcript ?? null }
  const path = `/api/seminars/${world.seminar.id}/texts`
  const { status, body } = await client.json<Refused>('POST', path, text)
  const told = `${status} ${Object.values(body.fields ?? {})[0] ?? ''}`.trim()
  expect([200, 413, 422], `${name}: ${told}`).toContain(status)
  if (status !== 200) expect(body.detail, name).toMatch(/[.?]$/)
  return told
}

describe('files made to stop whoever reads them', () => {
  it('are read or refused in words, and others are answered meanwhile', async () => {
    const [ines, liv] = await Promise.all([as('ines'), as('liv')])
    expect(files.length).toBeGreaterThanOrEqual(40)
    const waiting = [...files]
    let unread = files.length
    const readInTurn = async () => {
      for (let file = waiting.shift(); file; file = waiting.shift()) {
        await add(ines, file)
        unread--
      }
    }
    // somebody else goes on working, and is answered again and again
    let answered = 0
    const workOn = async () => {
      while (unread > 0) {
        expect((await liv.send('GET', `/api/seminars/${world.seminar.id}`)).status).toBe(200)
        answered++
        await new Promise(resolve => setTimeout(resolve, 100)) // as somebody who reads what they asked for
      }
    }
    // as many are read at once as there are threads for it
    const reading = Promise.all([readInTurn(), readInTurn()]).catch((error: unknown) => {
      unread = 0
      throw error
    })
    await Promise.all([reading, workOn()])
    expect(answered).toBeGreaterThan(files.length)
  })

  // on the server with its usual limits: a busy machine reads none of these so slowly that time is what is told
  it('are told from what can be read: locked, broken, swollen', async () => {
    const ines = await world.as('ines')
    const told = async (name: string) =>
      add(
        ines,
        files.find(f => f.name === name)!,
      )
    expect(await told('locked.pdf')).toContain('password')
    expect(await told('half.docx')).toMatch(/^422 .*neither a book/)
    expect(await told('unpacks.docx')).toMatch(/^422 .*unpacks to far more/)
    expect(await told('unpacks.epub')).toMatch(/^422 .*unpacks to far more/)
    expect(await told('half.pdf')).toMatch(/^422 /)
  })
})
