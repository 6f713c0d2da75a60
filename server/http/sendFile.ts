import { createHash } from 'node:crypto'
import { Readable } from 'node:stream'
import { getRequestHeader, sendStream, setResponseHeaders, setResponseStatus, type H3Event } from 'h3'
import type { Db } from '#server/database/client'
import { PIECE, storedBytes, wholeBytes, type StoredFile } from '#server/services/files/storedBytes'

interface Named {
  readonly type: string
  readonly name: string
}
/** A file that was just made. */
export interface Served extends Named {
  readonly bytes: Buffer
  readonly isOurText?: boolean // HTML that the sanitiser wrote, to be read in place
}
/** A stored file: of its bytes only those are read that go out. */
export interface ServedFromStore extends Named {
  readonly stored: Pick<StoredFile, 'id' | 'size'>
  readonly isOurText?: undefined
}

/** Types a browser shows by itself without running anything of the file; all others are taken away. */
const SHOWN_INLINE =
  /^(?:image\/(?:png|jpeg|gif|webp)|audio\/[\w.+-]+|video\/[\w.+-]+|application\/pdf|text\/plain)(?:;|$)/

/** Answers with a file, or the part of it that was asked for. The browser runs nothing of it and guesses no type. */
export async function sendFile(event: H3Event, db: Db, file: Served | ServedFromStore) {
  const { type, name, isOurText } = file
  const content = await contentOf(db, file)
  const tag = await tagOf(content)
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
  const { size } = content
  // players ask for parts of a recording (RFC 9110, one range)
  const range = /^bytes=(\d+)-(\d*)$/.exec(getRequestHeader(event, 'range') ?? '')
  if (!range) return send(event, content, 0, size)
  const from = Number(range[1])
  const to = Math.min(size - 1, range[2] ? Number(range[2]) : size - 1)
  if (from > to) {
    setResponseHeaders(event, { 'content-range': `bytes */${size}` })
    setResponseStatus(event, 416)
    return ''
  }
  setResponseHeaders(event, { 'content-range': `bytes ${from}-${to}/${size}` })
  setResponseStatus(event, 206)
  return send(event, content, from, to + 1)
}

interface Content {
  readonly size: number
  readonly part: (from: number, end: number) => Promise<Buffer>
  readonly pieces: (from: number, end: number) => AsyncIterable<Buffer> | Iterable<Buffer>
}

async function contentOf(db: Db, file: Served | ServedFromStore): Promise<Content> {
  const isSmall = 'stored' in file && file.stored.size <= PIECE // read once, and not once for its tag and once to go out
  if ('bytes' in file || isSmall) {
    const bytes = 'bytes' in file ? file.bytes : await wholeBytes(db, file.stored.id)
    const part = (from: number, end: number) => bytes.subarray(from, end)
    return {
      size: bytes.length,
      part: async (from, end) => part(from, end),
      pieces: (from, end) => [part(from, end)],
    }
  }
  const { id, size } = file.stored
  return {
    size,
    part: (from, end) => wholeBytes(db, id, from, end),
    pieces: (from, end) => storedBytes(db, id, from, end),
  }
}

function send(event: H3Event, content: Content, from: number, end: number) {
  setResponseHeaders(event, { 'content-length': end - from })
  return sendStream(event, Readable.from(content.pieces(from, end), { objectMode: false }))
}

const TAGGED = 65_536 // bytes from both ends of a file by which it is told from another

async function tagOf({ size, part }: Content): Promise<string> {
  const hash = createHash('sha256')
  hash.update(await part(0, Math.min(size, TAGGED)))
  hash.update(await part(Math.max(0, size - TAGGED), size))
  return `"${hash.digest('base64url').slice(0, 27)}-${size}"`
}
