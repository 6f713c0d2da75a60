import type { IncomingMessage } from 'node:http'
import { getRequestHeader, setResponseHeader, type H3Event } from 'h3'
import { Problem } from './problem'

const LINGER = 3000 // milliseconds in which somebody who still sends may read the answer; what they send is thrown away
const LONGEST_DRAIN = 5000 // milliseconds for which what is sent too much is thrown away before the answer

/**
 * Reads a body, counting: as soon as it is larger than may be it is refused, and nothing more of it is kept.
 * @param largest bytes
 * @param tooLarge what is answered then
 */
export async function readLimited(event: H3Event, largest: number, tooLarge: () => Problem): Promise<Buffer> {
  const { req } = event.node
  const refuse = async () => {
    hangUp(event)
    await drained(req)
    return tooLarge()
  }
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > largest) throw await refuse()
  const pieces: Buffer[] = []
  let size = 0
  let isRefused = false
  return new Promise((resolve, reject) => {
    const stop = (error: Error) => {
      req.off('data', take)
      req.resume() // what still comes is thrown away
      reject(error)
    }
    const take = (piece: Buffer) => {
      size += piece.length
      if (size <= largest) {
        pieces.push(piece)
        return
      }
      isRefused = true // whatever comes of the rest, it is this that is told
      req.off('data', take)
      void refuse().then(reject)
    }
    req.on('data', take)
    req.once('end', () => {
      if (!isRefused) resolve(Buffer.concat(pieces))
    })
    req.once('error', error => {
      if (!isRefused) stop(error)
    })
    req.once('close', () => {
      if (!isRefused && !req.readableEnded) stop(new Problem(400, 'brokenOff', 'This request broke off.'))
    })
  })
}

/**
 * Waits until everything has come, at most for a few seconds: the connection ends with the answer, and who is still sending
 * then would not read it.
 */
function drained(req: IncomingMessage): Promise<void> {
  if (req.readableEnded || req.destroyed) return Promise.resolve()
  return new Promise(resolve => {
    const timer = setTimeout(resolve, LONGEST_DRAIN)
    timer.unref()
    for (const over of ['end', 'close', 'error'])
      req.once(over, () => {
        clearTimeout(timer)
        resolve()
      })
    req.resume()
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
