import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { givenAlone, takeNamesOut, takeNamesOutOf } from './takeNamesOut'

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

  it('cuts no address in half: one that is theirs, or names them in full, goes whole; others stay', () => {
    const them = { given: 'Ada', family: 'Brook', email: 'a.brook@northmere.example' }
    const out = (text: string) => takeNamesOut(text, them, true)
    expect(out('Write to A.Brook@northmere.example.')).toBe('Write to former.student@erased.invalid.')
    expect(out('See https://ada-brook.example/notes, or Brook.')).toBe(
      'See https://erased.invalid/, or student.',
    )
    expect(out('https://x.example/people/Brook%2C%20Ada?p=1 end')).toBe('https://erased.invalid/ end')
    for (const whole of [
      'https://journal.example/Brook-2003.pdf',
      'fish@Brook.example',
      'www.Ada.example/a%b',
      '<a href="https://x.example/Brook">Ford</a>',
    ])
      expect(out(whole)).toBe(whole)
  })
  it('shows where the given name stands alone, with what is around it, and not where it is part of more', () => {
    const text = 'As Will said, Will Moreau-Sato and Willa will; see https://x.example/Will. And Will?'
    expect(givenAlone(text, name).map(p => p.before.slice(-4) + p.exact + p.after.slice(0, 5))).toEqual([
      'As Will said',
      'And Will?',
    ])
    expect(givenAlone(text, { given: '', family: 'X' })).toEqual([])
  })
  it('leaves nothing of the name but what is shown first, and everything that is shown goes', () => {
    const piece = fc.constantFrom(
      'Will',
      'Moreau-Sato',
      'Will Moreau-Sato',
      'https://x.example/Will',
      'sea',
      ',',
    )
    fc.assert(
      fc.property(fc.array(piece), pieces => {
        const text = pieces.join(' ')
        const shown = givenAlone(text, name).length
        const left = (pointsToThem: boolean) =>
          givenAlone(takeNamesOut(text, name, pointsToThem), name).length
        expect([left(false), left(true)]).toEqual([shown, 0])
      }),
    )
  })
})
