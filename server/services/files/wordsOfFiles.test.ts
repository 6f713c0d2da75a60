import { expect, it } from 'vitest'
import { wordsOf } from './wordsOfFiles'

it('counts the words of what a document says, and none of what has no text', () => {
  expect(wordsOf({ textHtml: '<p>one two</p><p>thr<b>ee</b></p>' })).toBe(3)
  expect(wordsOf({ textHtml: null, paperWords: 'four five' })).toBe(2)
  expect(wordsOf({ textHtml: null, paperWords: '' })).toBe(0)
  expect(wordsOf({ textHtml: null, paperWords: null })).toBeNull()
  expect(wordsOf({ textHtml: null })).toBeNull()
})
