import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { defineEventHandler, getRequestHeader, setResponseHeader, type H3Event } from 'h3'
import { useDatabase } from '#server/database/connection'
import type { Database } from '#server/database/client'
import type { Endpoint, Sent } from '#shared/http/endpoint'
import { logAccess } from './accessLog'
import { hangUp } from './body'
import { madeFrom } from './endpointOf'
import { longAct } from './longAct'
import { Problem } from './problem'
import { answerContract, answerProblem } from './route'

const LARGEST = 8 * 1024 ** 3 // bytes

/** Wraps a route that takes a large file as its body: who may send it is asked first, then it goes to disk, and from there to `handle`. */
export function uploadRoute<E extends Endpoint>(
  endpoint: E,
  allow: (context: { readonly event: H3Event; readonly db: Database }) => Promise<void>,
  handle: (context: {
    readonly event: H3Event
    readonly db: Database
    readonly path: string
  }) => Promise<Sent<E['answer']>>,
) {
  const handler = defineEventHandler(async event => {
    setResponseHeader(event, 'cache-control', 'private, no-store')
    let folder: string | null = null
    try {
      const db = useDatabase()
      await allow({ event, db })
      const tooLarge = () =>
        new Problem(413, 'tooLarge', 'This file is larger than what can be taken. Nothing was changed.')
      if (Number(getRequestHeader(event, 'content-length') ?? 0) > LARGEST) {
        hangUp(event)
        throw tooLarge()
      }
      return await longAct(event, async () => {
        folder = await mkdtemp(join(tmpdir(), 'jovrel-'))
        const path = join(folder, 'upload')
        let size = 0
        const counted = new Transform({
          transform(piece: Buffer, _, done) {
            size += piece.length
            done(size > LARGEST ? tooLarge() : null, piece)
          },
        })
        await pipeline(event.node.req, counted, createWriteStream(path))
        const answer = await handle({ event, db: useDatabase('long'), path })
        await logAccess(event, endpoint, null)
        return answerContract(endpoint).parse(answer)
      })
    } catch (error) {
      await logAccess(event, endpoint, error)
      return answerProblem(event, error)
    } finally {
      if (folder) await rm(folder, { recursive: true, force: true })
    }
  })
  return madeFrom(endpoint, handler)
}
