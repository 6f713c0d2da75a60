import { PassThrough } from 'node:stream'
import type { H3Event } from 'h3'
import { describe, expect, it } from 'vitest'
import { parseJson, readLimited, requireWellFormed } from './body'
import { Problem } from './problem'

const tooLarge = () => new Problem(413, 'tooLarge', 'Too large.')

/** A request whose body comes in pieces, without saying how long it is. */
function requestOf(pieces: readonly Buffer[]) {
  const req = Object.assign(new PassThrough(), { headers: {}, socket: { destroy: () => {} } })
  const res = { once: () => {}, setHeader: () => {}, getHeader: () => undefined }
  for (const piece of pieces) req.write(piece)
  req.end()
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
})

describe('texts of a request', () => {
  it('are refused with U+0000 or half of a surrogate pair, as a value or as a key; other letters are taken', () => {
    for (const bad of ['a\0b', '\ud83d', 'x\udc00y', '\udc00\ud83d'])
      for (const body of [{ text: bad }, { [bad]: 1 }, [[bad]]])
        expect(() => parseJson(JSON.stringify(body))).toThrow(Problem)
    for (const good of ['', 'ferry 🛶', 'ﬁ', 'אבג', '\u200d'])
      expect(parseJson(JSON.stringify({ text: good }))).toEqual({ text: good })
    expect(() => requireWellFormed('half \ud83d')).toThrow('cannot be stored')
  })
  it('that are no JSON, or are nested without end, are refused and break nothing', () => {
    for (const raw of ['{', 'undefined', '['.repeat(300_000)])
      expect(() => parseJson(raw)).toThrow('could not be read')
  })
})
