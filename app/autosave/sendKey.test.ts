// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest'
import { setOwner } from './ownedKey'
import { sendKey } from './sendKey'

describe('the key under which something is sent', () => {
  beforeEach(() => {
    localStorage.clear()
    setOwner('liv')
  })
  const on = (name: string) => sendKey(() => name)

  it('is the same for the same words, from a page opened anew, too', () => {
    const key = on('letter').for({ doc: 'Thank you' })
    expect(on('letter').for({ doc: 'Thank you' })).toBe(key)
    expect(on('letter').for({ doc: 'Thank you!' })).not.toBe(key)
  })

  it('is another for another text, another person, and after it was done', () => {
    const letter = on('letter')
    const key = letter.for('a')
    expect(on('message').for('a')).not.toBe(key)
    setOwner('nico')
    expect(on('letter').for('a')).not.toBe(key)
    setOwner('liv')
    expect(letter.for('a')).toBe(key)
    letter.done()
    expect(letter.for('a')).not.toBe(key)
  })
})
