import { createHash } from 'node:crypto'
import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import {
  defineEventHandler,
  getRequestHeader,
  getRouterParam,
  setResponseHeaders,
  setResponseStatus,
  type H3Event,
} from 'h3'
import { nothingHere } from '#server/access/seminar'
import { requireFileReader } from '#server/access/files'
import { requirePerson } from '#server/access/session'
import { now } from '#server/clock'
import type { Database } from '#server/database/client'
import { useDatabase, type PoolName } from '#server/database/connection'
import { fileById, unnamedFile } from '#server/services/files/files'
import { FileParams } from '#shared/files/file'
import type { Endpoint, Read } from '#shared/http/endpoint'
import { logError } from '#server/log'
import { logAccess } from './accessLog'
import { madeFrom } from './endpointOf'
import { longAct } from './longAct'
import { answerProblem, paramsOf, queryOf } from './route'

type StoredFile = NonNullable<Awaited<ReturnType<typeof fileById>>>
export interface Served {
  readonly bytes: Buffer
  readonly type: string
  readonly name: string
  readonly isOurText?: boolean // HTML that the sanitiser wrote, to be read in place
}

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
export function fileRoute(endpoint: Endpoint, handle: (file: StoredFile) => Served) {
  const handler = defineEventHandler(async event => {
    try {
      const db = useDatabase()
      await requirePerson(event)
      const params = FileParams.safeParse({ fileId: getRouterParam(event, 'fileId') })
      const file = params.success ? await fileById(db, params.data.fileId) : null
      if (!file) throw nothingHere()
      const { isUnnamed } = await requireFileReader(event, db, file, now())
      return sendFile(event, handle(isUnnamed ? await unnamedFile(db, file) : file))
    } catch (error) {
      return answerProblem(event, error)
    }
  })
  return madeFrom(endpoint, handler)
}

/** Types a browser shows by itself without running anything of the file; all others are taken away. */
const SHOWN_INLINE =
  /^(?:image\/(?:png|jpeg|gif|webp)|audio\/[\w.+-]+|video\/[\w.+-]+|application\/pdf|text\/plain)(?:;|$)/

export function sendFile(event: H3Event, { bytes, type, name, isOurText }: Served) {
  const tag = tagOf(bytes)
  const how = isOurText || SHOWN_INLINE.test(type) ? 'inline' : 'attachment'
  setResponseHeaders(event, {
    etag: tag,
    'content-type': type,
    'content-disposition': `${how}; filename*=UTF-8''${encodeURIComponent(name)}`,
    // a paper is shown by the browser's own reader, which a sandbox would keep from starting; it runs nothing of ours
    'content-security-policy':
      type === 'application/pdf'
        ? "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'self'"
        : "default-src 'none'; sandbox",
    'cache-control': 'private, no-cache', // asked for anew, because who may have it may have changed
    'accept-ranges': 'bytes',
  })
  if (getRequestHeader(event, 'if-none-match') === tag) {
    setResponseStatus(event, 304)
    return ''
  }
  // players ask for parts of a recording (RFC 9110, one range)
  const range = /^bytes=(\d+)-(\d*)$/.exec(getRequestHeader(event, 'range') ?? '')
  if (!range) return bytes
  const from = Number(range[1])
  const to = Math.min(bytes.length - 1, range[2] ? Number(range[2]) : bytes.length - 1)
  if (from > to) {
    setResponseHeaders(event, { 'content-range': `bytes */${bytes.length}` })
    setResponseStatus(event, 416)
    return ''
  }
  setResponseHeaders(event, { 'content-range': `bytes ${from}-${to}/${bytes.length}` })
  setResponseStatus(event, 206)
  return bytes.subarray(from, to + 1)
}

const TAGGED = 65_536 // bytes from both ends of a file by which it is told from another

const tagOf = (bytes: Buffer): string => {
  const hash = createHash('sha256').update(bytes.subarray(0, TAGGED)).update(bytes.subarray(-TAGGED))
  return `"${hash.digest('base64url').slice(0, 27)}-${bytes.length}"`
}

/** Wraps a route that shows a file without saying which: its address is another thing's, and so is who may have it. */
export function blindFileRoute<E extends Endpoint>(
  endpoint: E,
  find: (context: FileContext<E>) => Promise<Served>,
) {
  const handler = defineEventHandler(async event => {
    try {
      return sendFile(event, await find(fileContext(event, endpoint)))
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
