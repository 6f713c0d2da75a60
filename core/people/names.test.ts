import { expect, it } from 'vitest'
import { initialsOf, keptNames, listName, nameParts } from './names'

it.each([
  [{ givenName: 'Liv', familyName: 'Brandt' }, 'Liv Brandt', 'Brandt, Liv'],
  [{ givenName: ' Ana María ', familyName: 'de la Cruz' }, 'Ana María de la Cruz', 'de la Cruz, Ana María'],
  [{ givenName: 'Suharti', familyName: '' }, 'Suharti', 'Suharti'],
  [{ givenName: '', familyName: 'Suharti' }, 'Suharti', 'Suharti'],
  [{ givenName: 'Ali', familyName: 'Ali' }, 'Ali Ali', 'Ali, Ali'],
])('%j is kept as %s, and stands in lists as %s', (parts, name, listed) => {
  const kept = keptNames(parts)
  expect(kept.name).toBe(name)
  expect(listName(kept)).toBe(listed)
  expect([kept.givenName, kept.familyName]).not.toContain('')
  expect(keptNames(nameParts(kept))).toEqual(kept) // as it is asked for and kept again
})

it('stands in a disc by its first letters, one name alone by one', () => {
  expect(initialsOf(keptNames({ givenName: 'Liv', familyName: 'Brandt' }))).toBe('LB')
  expect(initialsOf(keptNames({ givenName: 'Suharti', familyName: '' }))).toBe('S')
})
