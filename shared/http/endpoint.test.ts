import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { addressOf, endpoint } from './endpoint'

const readPart = endpoint({
  method: 'GET',
  path: '/api/books/:bookId/parts/:part',
  summary: 'A part of a book',
  params: z.object({ bookId: z.string(), part: z.number() }),
  query: z.object({ q: z.string().optional() }),
  answer: z.object({}),
})

describe('addressOf', () => {
  it('fills parameters and query in, each encoded', () => {
    expect(addressOf(readPart, { params: { bookId: 'a/b ?', part: 0 }, query: { q: 'sea & tide' } })).toBe(
      '/api/books/a%2Fb%20%3F/parts/0?q=sea+%26+tide',
    )
  })
  it('leaves out what is not asked for', () => {
    expect(addressOf(readPart, { params: { bookId: 'a', part: 1 }, query: { q: undefined } })).toBe(
      '/api/books/a/parts/1',
    )
    expect(addressOf(readPart, { params: { bookId: 'a', part: 1 }, query: { q: '' } })).toBe(
      '/api/books/a/parts/1',
    )
  })
  it.each([[{}], [{ bookId: null, part: 1 }], [{ bookId: '', part: 1 }]])('refuses %j', params => {
    expect(() => addressOf(readPart, { params })).toThrow(RangeError)
  })
})
