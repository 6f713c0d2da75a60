import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { giveSign, namedBy, pressedFor, type OwnKeys } from './ownKeys'

const SIGNS = [...'jkun[].0']
const acts = fc.array(fc.tuple(fc.constantFrom(...SIGNS), fc.constantFrom(...SIGNS, '')), { maxLength: 12 })

describe('keys somebody has changed', () => {
  it('exchanges two keys', () => {
    const own = giveSign({}, 'j', 'n')
    expect([pressedFor(own, 'j'), pressedFor(own, 'n')]).toEqual(['n', 'j'])
    expect([namedBy(own, 'n'), namedBy(own, 'j'), namedBy(own, 'u')]).toEqual(['j', 'n', 'u'])
  })
  it('switches one off, and on again', () => {
    const off = giveSign({}, 'n', '')
    expect([pressedFor(off, 'n'), namedBy(off, 'n')]).toEqual(['', null])
    expect(giveSign(off, 'n', 'n')).toEqual({})
  })
  it('takes a sign that no page names, which frees the old one', () => {
    const own = giveSign({}, 'j', 'ö')
    expect([namedBy(own, 'ö'), namedBy(own, 'j')]).toEqual(['j', 'ö'])
  })
  it('never has one sign for two keys, and what one presses is what one gets, after any changes', () => {
    fc.assert(
      fc.property(acts, changes => {
        const own = changes.reduce<OwnKeys>((so, [key, sign]) => giveSign(so, key, sign), {})
        const pressed = SIGNS.map(key => pressedFor(own, key)).filter(sign => sign !== '')
        expect(new Set(pressed).size).toBe(pressed.length)
        for (const key of SIGNS)
          if (pressedFor(own, key) !== '') expect(namedBy(own, pressedFor(own, key))).toBe(key)
      }),
    )
  })
  it('gives the key the sign that was chosen last', () => {
    fc.assert(
      fc.property(acts, fc.constantFrom(...SIGNS), fc.constantFrom(...SIGNS, ''), (changes, key, sign) => {
        const before = changes.reduce<OwnKeys>((so, [k, s]) => giveSign(so, k, s), {})
        expect(pressedFor(giveSign(before, key, sign), key)).toBe(sign)
      }),
    )
  })
})
