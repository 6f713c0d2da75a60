import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { takeNamesOut, takeNamesOutOf } from './takeNamesOut'

const name = { given: 'Will', family: 'Moreau-Sato' }
const count = (text: string) => text.match(/[\p{L}\p{M}\p{N}]+/gu)?.length ?? 0

describe('taking a name out', () => {
  it('finds it in full, either way round, and the family name alone; the given name only near its bearer', () => {
    expect(
      takeNamesOut('WILL MOREAU-SATO wrote; Moreau-Sato, Will; Moreau-Sato’s note. He will.', name, false),
    ).toBe('former former-student wrote; former-former, student; former-student’s note. He will.')
    expect(takeNamesOut('Dear Will, you will see.', name, true)).toBe('Dear student, you will see.')
    expect(takeNamesOut('Dear Will, Willa and Goodwill', name, false)).toBe('Dear Will, Willa and Goodwill')
  })
  it('leaves as many words as there were, at the same places', () => {
    const piece = fc.constantFrom(
      'Will Moreau-Sato',
      'Moreau-Sato',
      'Will',
      'harbour',
      ', ',
      ' ',
      '. ',
      'will',
    )
    fc.assert(
      fc.property(fc.array(piece), fc.boolean(), (pieces, near) => {
        const text = pieces.join(' ')
        const out = takeNamesOut(text, name, near)
        expect(count(out)).toBe(count(text))
        expect(out).not.toMatch(/Moreau/i)
        if (near) expect(out).not.toMatch(/\bWill\b/)
      }),
    )
  })
  it('reaches every text of a document and leaves its form', () => {
    expect(
      takeNamesOutOf(
        { type: 'doc', content: [{ text: 'By Moreau-Sato' }, { attrs: { n: 3, at: null } }] },
        name,
        false,
      ),
    ).toEqual({ type: 'doc', content: [{ text: 'By former-student' }, { attrs: { n: 3, at: null } }] })
  })
})
