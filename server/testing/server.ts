import { unpackThread, type PackedThread } from '#shared/contributing/packedThread'
import type { ThreadView } from '#shared/contributing/thread'
import { startServer } from '#scripts/serve.mjs'
import { freePort } from '#scripts/cluster.mjs'

/** Wednesday of week 6, 10:20 in the demo seminar: when every test takes place. */
export const TEST_NOW = '2026-10-14T08:20:00Z'

/** Makes the first account of an empty installation. */
export const SETUP_CODE = 'TIDE-GATE-LOCK'

/** The built server on a database and a free port. */
export async function testServer(databaseUrl: string, env: Record<string, string> = {}) {
  const entry = process.env.JOVREL_TEST_BUILD
  if (!entry) throw new Error('JOVREL_TEST_BUILD is not set: run the tests with npm test')
  return startServer(
    entry,
    {
      PORT: await freePort(),
      DATABASE_URL: databaseUrl,
      JOVREL_DEMO: '1',
      JOVREL_NOW: TEST_NOW,
      JOVREL_SETUP_CODE: SETUP_CODE,
      ...env,
    },
    { quiet: true },
  )
}

/** How many statements an answer took, of a server that says so (`JOVREL_SHOW_QUERIES`). */
export const queriesOf = (answer: Response) =>
  Number(/queries;desc="(\d+)"/.exec(answer.headers.get('server-timing') ?? '')?.[1])

/**
 * Asks once more where a kept connection was closed just as the request went out: nothing of it was read, so that nothing is
 * done twice.
 */
async function fetchOnOpen(address: string, init: RequestInit): Promise<Response> {
  try {
    return await fetch(address, init)
  } catch (error) {
    const { cause } = error as { cause?: { code?: string; socket?: { bytesRead: number } } } // what undici throws
    if (cause?.code !== 'UND_ERR_SOCKET' || cause.socket?.bytesRead !== 0) throw error
    return fetch(address, init)
  }
}

/** Requests to a server as one person, as their browser would send them. */
export class Client {
  private cookie = ''
  constructor(readonly address: string) {}
  /** For requests made by other means. */
  get cookies(): string {
    return this.cookie
  }

  /** The same person at another server of the same installation. */
  at(address: string): Client {
    const there = new Client(address)
    there.cookie = this.cookie
    return there
  }

  async signIn(email: string, password = 'harbour', headers: Record<string, string> = {}): Promise<this> {
    const answer = await this.send('POST', '/api/session', { email, password }, headers)
    if (answer.status !== 200) throw new Error(`${email} could not sign in: ${answer.status}`)
    this.cookie = answer.headers.get('set-cookie')!.split(';')[0]!
    return this
  }

  send(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Response> {
    const bodyText = () => {
      if (body === undefined) return undefined
      if (typeof body === 'string') return body
      return JSON.stringify(body)
    }
    return fetchOnOpen(this.address + path, {
      method,
      headers: {
        ...(this.cookie && { cookie: this.cookie }),
        origin: this.address,
        // a kept connection may be closed by the server just as the next request goes out; a large body needs it open
        ...((bodyText()?.length ?? 0) < 100_000 && { connection: 'close' }),
        ...(body !== undefined && { 'content-type': 'application/json' }),
        ...headers,
      },
      body: bodyText(),
      redirect: 'manual',
    })
  }

  async json<T = never>(method: string, path: string, body?: unknown): Promise<{ status: number; body: T }> {
    const answer = await this.send(method, path, body)
    const text = await answer.text()
    return {
      status: answer.status,
      body: (answer.headers.get('content-type')?.includes('ndjson') ? lastLine(text) : JSON.parse(text)) as T,
    }
  }

  /** The talk at an address, as its reader's page has it. */
  async thread(path: string): Promise<{ status: number; body: ThreadView }> {
    const { status, body } = await this.json<PackedThread>('GET', path)
    return { status, body: status === 200 ? unpackThread(body) : (body as never) } // of a refusal nobody reads a talk
  }
}

/** What long work came to, after the lines that said how far it was. */
function lastLine(text: string): unknown {
  const last = JSON.parse(text.trim().split('\n').at(-1)!) as { answer?: unknown; problem?: unknown }
  return last.answer ?? last.problem
}
