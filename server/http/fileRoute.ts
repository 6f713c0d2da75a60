import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { defineEventHandler, getRouterParam, setResponseHeaders, type H3Event } from 'h3'
import { nothingHere } from '#server/access/seminar'
import { requireFileReader } from '#server/services/contributing/fileAccess'
import { requirePerson } from '#server/access/session'
import { now } from '#server/clock'
import type { Database } from '#server/database/client'
import { useDatabase, type PoolName } from '#server/database/connection'
import { unnamedFile } from '#server/services/files/files'
import { storedFile, type StoredFile } from '#server/services/files/storedBytes'
import { FileParams } from '#shared/files/file'
import type { Endpoint, Read } from '#shared/http/endpoint'
import { logError } from '#server/log'
import { logAccess } from './accessLog'
import { madeFrom } from './endpointOf'
import { longAct } from './longAct'
import { answerProblem, paramsOf, queryOf } from './route'
import { sendFile, type Served, type ServedFromStore } from './sendFile'

interface FileContext<E extends Endpoint> {
  readonly event: H3Event
  readonly db: Database
  readonly now: Date
  readonly params: Read<E['params']>
  readonly query: Read<E['query']>
}

const fileContext = <E extends Endpoint>(
  event: H3Event,
  endpoint: E,
  pool: PoolName = 'main',
): FileContext<E> => ({
  event,
  db: useDatabase(pool),
  now: now(),
  params: paramsOf(event, endpoint),
  query: queryOf(event, endpoint),
})

/** Wraps a route that answers with a file: its bytes or a range of them, never run by the browser, never guessed at. */
export function fileRoute(endpoint: Endpoint, handle: (file: StoredFile) => Served | ServedFromStore) {
  const handler = defineEventHandler(async event => {
    try {
      const db = useDatabase()
      await requirePerson(event)
      const params = FileParams.safeParse({ fileId: getRouterParam(event, 'fileId') })
      const file = params.success ? await storedFile(db, params.data.fileId) : null
      if (!file) throw nothingHere()
      const { isUnnamed } = await requireFileReader(event, db, file, now())
      return await sendFile(event, db, handle(isUnnamed ? await unnamedFile(db, file) : file))
    } catch (error) {
      return answerProblem(event, error)
    }
  })
  return madeFrom(endpoint, handler)
}

/** Wraps a route that shows a file without saying which: its address is another thing's, and so is who may have it. */
export function blindFileRoute<E extends Endpoint>(
  endpoint: E,
  find: (context: FileContext<E>) => Promise<Served | ServedFromStore>,
) {
  const handler = defineEventHandler(async event => {
    try {
      const context = fileContext(event, endpoint)
      return await sendFile(event, context.db, await find(context))
    } catch (error) {
      return answerProblem(event, error)
    }
  })
  return madeFrom(endpoint, handler)
}

/** Wraps a route that makes a file to take away. What fails before it is made answers like any route. */
export function downloadRoute<E extends Endpoint>(
  endpoint: E,
  make: (context: FileContext<E>) => Promise<Served>,
) {
  const handler = defineEventHandler(async event => {
    try {
      const { bytes, type, name } = await longAct(event, () => make(fileContext(event, endpoint, 'long')))
      await logAccess(event, endpoint, null)
      setResponseHeaders(event, {
        'content-type': type,
        'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
        'cache-control': 'private, no-store',
      })
      return bytes
    } catch (error) {
      await logAccess(event, endpoint, error)
      return answerProblem(event, error)
    }
  })
  return madeFrom(endpoint, handler)
}

/** Wraps a route that answers with a file as it is made: it goes out in pieces, and stops being made when nobody reads on. */
export function longDownloadRoute<E extends Endpoint>(
  endpoint: E,
  make: (context: FileContext<E>) => Promise<Omit<Served, 'bytes'> & { readonly stream: Readable }>,
) {
  const handler = defineEventHandler(async event => {
    try {
      await longAct(event, async () => {
        const { stream, type, name } = await make(fileContext(event, endpoint, 'long'))
        await logAccess(event, endpoint, null)
        setResponseHeaders(event, {
          'content-type': type,
          'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
          'cache-control': 'private, no-store',
        })
        await pipeline(stream, event.node.res)
      })
    } catch (error) {
      await logAccess(event, endpoint, error)
      if (!event.node.res.headersSent) return answerProblem(event, error)
      // it breaks off, so that nobody takes what they have for the whole
      if (!event.node.req.destroyed) logError('download', error)
      event.node.res.destroy()
    }
  })
  return madeFrom(endpoint, handler)
}
