import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import {
  defineEventHandler,
  getQuery,
  getRequestHeader,
  getRouterParam,
  getRouterParams,
  setResponseHeaders,
  setResponseStatus,
  type H3Event,
} from 'h3'
import type { z } from 'zod'
import { nothingHere } from '#server/access/seminar'
import { requireFileReader } from '#server/access/files'
import { requirePerson } from '#server/access/session'
import { now } from '#server/clock'
import type { Database } from '#server/database/client'
import { useDatabase } from '#server/database/connection'
import { fileById } from '#server/services/files/files'
import { FileParams } from '#shared/files/file'
import { answerProblem } from './route'

type StoredFile = NonNullable<Awaited<ReturnType<typeof fileById>>>
export interface Served {
  readonly bytes: Buffer
  readonly type: string
  readonly name: string
}

/** Wraps a route that answers with a file: its bytes or a range of them, never run by the browser, never guessed at. */
export function fileRoute(handle: (file: StoredFile) => Served) {
  return defineEventHandler(async event => {
    try {
      const db = useDatabase()
      await requirePerson(event, db)
      const params = FileParams.safeParse({ fileId: getRouterParam(event, 'fileId') })
      const file = params.success ? await fileById(db, params.data.fileId) : null
      if (!file) throw nothingHere()
      await requireFileReader(event, db, file, now())
      return sendFile(event, handle(file))
    } catch (error) {
      return answerProblem(event, error)
    }
  })
}

export function sendFile(event: H3Event, { bytes, type, name }: Served) {
  setResponseHeaders(event, {
    'content-type': type,
    'content-disposition': `inline; filename*=UTF-8''${encodeURIComponent(name)}`, // a paper is shown by the browser's own reader, which a sandbox would keep from starting; it runs nothing of ours
    'content-security-policy':
      type === 'application/pdf'
        ? "default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'self'"
        : "default-src 'none'; sandbox",
    'cache-control': 'private, max-age=86400, immutable',
    'accept-ranges': 'bytes',
  })
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

/** Wraps a route that shows a file without saying which: its address is another thing's, and so is who may have it. */
export function blindFileRoute<P extends z.ZodType, Q extends z.ZodType>(
  contract: { readonly params: P; readonly query: Q },
  find: (context: {
    readonly event: H3Event
    readonly db: Database
    readonly now: Date
    readonly params: z.infer<P>
    readonly query: z.infer<Q>
  }) => Promise<Served>,
) {
  return defineEventHandler(async event => {
    try {
      const params = contract.params.safeParse(getRouterParams(event))
      const query = contract.query.safeParse(getQuery(event))
      if (!params.success || !query.success) throw nothingHere()
      return sendFile(
        event,
        await find({ event, db: useDatabase(), now: now(), params: params.data, query: query.data }),
      )
    } catch (error) {
      return answerProblem(event, error)
    }
  })
}

/** Wraps a route that makes a file to take away. What fails before it is made answers like any route. */
export function downloadRoute<P extends z.ZodType, Q extends z.ZodType = z.ZodUndefined>(
  contract: { readonly params: P; readonly query?: Q },
  make: (context: {
    readonly event: H3Event
    readonly db: Database
    readonly now: Date
    readonly params: z.infer<P>
    readonly query: z.infer<Q>
  }) => Promise<Served>,
) {
  return defineEventHandler(async event => {
    try {
      const params = contract.params.safeParse(getRouterParams(event))
      if (!params.success) throw nothingHere()
      const query = contract.query ? contract.query.parse(getQuery(event)) : undefined
      const { bytes, type, name } = await make({
        event,
        db: useDatabase(),
        now: now(),
        params: params.data,
        query: query as z.infer<Q>,
      })
      setResponseHeaders(event, {
        'content-type': type,
        'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
        'cache-control': 'private, no-store',
      })
      return bytes
    } catch (error) {
      return answerProblem(event, error)
    }
  })
}

/** Wraps a route that answers with a file as it is made: it goes out in pieces, and stops being made when nobody reads on. */
export function longDownloadRoute<P extends z.ZodType>(
  contract: { readonly params: P },
  make: (context: {
    readonly event: H3Event
    readonly db: Database
    readonly now: Date
    readonly params: z.infer<P>
  }) => Promise<Omit<Served, 'bytes'> & { readonly stream: Readable }>,
) {
  return defineEventHandler(async event => {
    try {
      const params = contract.params.safeParse(getRouterParams(event))
      if (!params.success) throw nothingHere()
      const { stream, type, name } = await make({ event, db: useDatabase(), now: now(), params: params.data })
      setResponseHeaders(event, {
        'content-type': type,
        'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
        'cache-control': 'private, no-store',
      })
      await pipeline(stream, event.node.res)
    } catch (error) {
      if (!event.node.res.headersSent) return answerProblem(event, error)
      // it breaks off, so that nobody takes what they have for the whole
      if (!event.node.req.destroyed) console.error(error)
      event.node.res.destroy()
    }
  })
}
