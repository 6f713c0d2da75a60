import { getRequestHeader, setResponseHeader, type H3Event } from 'h3'
import { Problem } from './problem'

const LINGER = 3000 // milliseconds in which somebody who still sends may read the answer; what they send is thrown away

/**
 * Reads a body, counting: as soon as it is larger than may be it is refused, and nothing more of it is kept.
 * @param largest bytes
 * @param tooLarge what is answered then
 */
export async function readLimited(event: H3Event, largest: number, tooLarge: () => Problem): Promise<Buffer> {
  const refuse = () => {
    hangUp(event)
    return tooLarge()
  }
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > largest) throw refuse()
  const { req } = event.node
  const pieces: Buffer[] = []
  let size = 0
  return new Promise((resolve, reject) => {
    const stop = (error: Error) => {
      req.off('data', take)
      req.resume() // what still comes is thrown away
      reject(error)
    }
    const take = (piece: Buffer) => {
      size += piece.length
      if (size > largest) stop(refuse())
      else pieces.push(piece)
    }
    req.on('data', take)
    req.once('end', () => resolve(Buffer.concat(pieces)))
    req.once('error', stop)
    req.once('close', () => {
      if (!req.readableEnded) stop(new Problem(400, 'brokenOff', 'This request broke off.'))
    })
  })
}

/** Ends the connection soon after the answer is out: what is still being sent is thrown away until then. */
export function hangUp(event: H3Event): void {
  const { req, res } = event.node
  setResponseHeader(event, 'connection', 'close')
  req.resume()
  res.once('finish', () => {
    setTimeout(() => req.socket.destroy(), LINGER).unref()
  })
}

/** Refuses texts that no database keeps and no letter has: U+0000, and half of a surrogate pair. */
export function requireWellFormed(text: string): void {
  if (text.includes('\0') || !isWellFormed(text))
    throw new Problem(
      422,
      'characters',
      'There is a character in this text that cannot be stored. Type it anew, or paste it as plain text.',
    )
}

/** As in ECMAScript 2024; the language level of the build does not know it yet. */
const isWellFormed = (text: string): boolean =>
  !/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(text)

/** Parses JSON whose texts are well-formed. */
export function parseJson(raw: string): unknown {
  try {
    return JSON.parse(raw, (key, value: unknown) => {
      requireWellFormed(key)
      if (typeof value === 'string') requireWellFormed(value)
      return value
    })
  } catch (error) {
    if (error instanceof Problem) throw error
    throw new Problem(400, 'notJson', 'This request could not be read.')
  }
}
