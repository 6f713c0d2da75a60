import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { problemOf } from './problem'

const Body = z.object({
  title: z.string().min(2, 'Write a title.').max(5),
  points: z.number(),
  kind: z.enum(['a', 'b']),
})
const fieldsOf = (body: unknown) => problemOf(Body.safeParse(body).error!).details().fields

describe('a contract that is not met', () => {
  it('is told in its own sentence, or in a plain one, never in the words of the library', () => {
    expect(fieldsOf({ title: 'x', points: 1, kind: 'a' })).toEqual({ title: 'Write a title.' })
    expect(fieldsOf({ title: 'too long', points: 'x', kind: 'c' })).toEqual({
      title: 'This is longer or larger than what fits here.',
      points: 'This is missing, or not what is asked for here.',
      kind: 'This is missing, or not what is asked for here.',
    })
    expect(fieldsOf(null)).toEqual({ body: 'This is missing, or not what is asked for here.' })
  })
})
