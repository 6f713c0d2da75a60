import { describe, expect, it } from 'vitest'
import { databaseFailure } from './failure'

const coded = (code: string) => Object.assign(new Error('x'), { code })

describe('what a failed query means', () => {
  it('is told by the code of its cause, however deep it lies', () => {
    expect(databaseFailure(new Error('Failed query', { cause: coded('57P03') }))).toBe('away')
    expect(databaseFailure(new Error('a', { cause: new Error('b', { cause: coded('ECONNRESET') }) }))).toBe(
      'away',
    )
    expect(databaseFailure(new Error('a', { cause: coded('55P03') }))).toBe('slow')
    expect(databaseFailure(new Error('timeout exceeded when trying to connect'))).toBe('slow')
    expect(databaseFailure(new Error('Connection terminated unexpectedly'))).toBe('away')
  })
  it('is nothing of the kind for other errors', () => {
    for (const error of [coded('23505'), new Error('no'), 'text', null, undefined])
      expect(databaseFailure(error)).toBeNull()
  })
})
