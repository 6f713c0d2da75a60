import { describe, expect, it, vi } from 'vitest'
import { z } from 'zod'
import { loggable, logSeldom } from './log'

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

  it('says once in ten seconds what many requests meet, and how many there were', () => {
    vi.useFakeTimers()
    const lines = vi.spyOn(console, 'error').mockImplementation(() => {})
    const away = Object.assign(new Error('gone'), { code: '57P03' })
    for (let n = 0; n < 300; n++) logSeldom('database', away, { route: 'GET /api/session' })
    logSeldom('database', away, { route: 'GET /api/account' })
    expect(lines).toHaveBeenCalledTimes(2)
    vi.advanceTimersByTime(10_001)
    logSeldom('database', away, { route: 'GET /api/session' })
    expect(JSON.parse(lines.mock.lastCall![0] as string)).toMatchObject({ before: '299' })
    vi.useRealTimers()
    lines.mockRestore()
  })
})
