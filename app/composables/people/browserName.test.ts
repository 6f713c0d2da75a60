import { describe, expect, it } from 'vitest'
import { browserName } from './browserName'

describe('what a browser is called', () => {
  it('is its own name and its system', () => {
    const agent = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'
    expect(browserName(agent)).toBe('Firefox on Linux')
  })
  it('is unknown where it says nothing or nothing that is known', () => {
    expect(browserName('')).toBe('An unknown browser')
    expect(browserName('%%%')).toBe('A browser')
  })
})
