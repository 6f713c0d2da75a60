import { PassThrough } from 'node:stream'
import type { H3Event } from 'h3'
import { describe, expect, it } from 'vitest'
import { readLimited } from './body'
import { Problem } from './problem'

const tooLarge = () => new Problem(413, 'tooLarge', 'Too large.')

/** A request whose body comes in pieces, without saying how long it is. */
function requestOf(pieces: readonly Buffer[], { isOpen = false } = {}) {
  const req = Object.assign(new PassThrough(), { headers: {}, socket: { destroy: () => {} } })
  const res = { once: () => {}, setHeader: () => {}, getHeader: () => undefined }
  for (const piece of pieces) req.write(piece)
  if (!isOpen) req.end()
  return { node: { req, res } } as unknown as H3Event // as much of an event as reading a body needs
}

describe('a body', () => {
  it('is read whole up to its limit, and refused at the first byte above it, however it is cut', async () => {
    const pieces = [Buffer.alloc(60, 'a'), Buffer.alloc(40, 'b')]
    expect((await readLimited(requestOf(pieces), 100, tooLarge)).length).toBe(100)
    await expect(readLimited(requestOf(pieces), 99, tooLarge)).rejects.toMatchObject({ status: 413 })
    await expect(readLimited(requestOf([Buffer.alloc(500)]), 99, tooLarge)).rejects.toMatchObject({
      status: 413,
    })
    expect((await readLimited(requestOf([]), 10, tooLarge)).length).toBe(0)
  })

  it('is refused once the rest has come, for who is still sending would not read the answer', async () => {
    const event = requestOf([Buffer.alloc(60)], { isOpen: true })
    let told: unknown = null
    const reading = readLimited(event, 50, tooLarge).catch((error: unknown) => {
      told = error
    })
    await new Promise(resolve => setImmediate(resolve))
    expect(told).toBeNull()
    const sending = event.node.req as unknown as PassThrough // as it was made above
    sending.end(Buffer.alloc(1000))
    await reading
    expect(told).toMatchObject({ status: 413 })
  })
})
