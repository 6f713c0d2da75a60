import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { loggable } from './log'

describe('what a log says of an error', () => {
  it('is its code and where it came from, never the statement, its parameters or its message', () => {
    const cause = Object.assign(new Error('Key (email)=(liv@x.example) already exists.'), {
      code: '23505',
      constraint: 'persons_email_unique',
      detail: 'Key (email)=(liv@x.example)',
    })
    const error = new Error('Failed query: insert into persons …\nparams: liv@x.example,scrypt$1$2', {
      cause,
    })
    const said = loggable(error)
    expect(said).toMatchObject({ name: 'Error', code: '23505', constraint: 'persons_email_unique' })
    expect(said.frames[0]).toContain('log.test.ts')
    expect(JSON.stringify(said)).not.toMatch(/liv@|scrypt|Failed query/)
  })
  it('names what of an answer misses its contract, without the answer', () => {
    const { error } = z
      .object({ letter: z.object({ text: z.number() }) })
      .safeParse({ letter: { text: 'secret' } })
    expect(loggable(error)).toMatchObject({ contract: ['letter.text: invalid_type'] })
    expect(JSON.stringify(loggable(error))).not.toContain('secret')
  })
  it('manages with what is no error at all', () => {
    expect(loggable('a text')).toEqual({ name: 'string', frames: [] })
  })
})
