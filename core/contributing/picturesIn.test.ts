import { describe, expect, it } from 'vitest'
import { pictureWords, picturesIn, withPicturesOf } from './picturesIn'

const id = (n: number) => `0190aaaa-0000-7000-8000-00000000000${n}`
const picture = (n: number, alt = '') => ({ type: 'image', attrs: { src: `/api/files/${id(n)}`, alt } })
const words = { type: 'paragraph', content: [{ type: 'text', text: 'Two moles.' }] }
const doc = {
  type: 'doc',
  content: [
    words,
    picture(1, 'The old mole'),
    { type: 'blockquote', content: [picture(2), words] },
    picture(1),
  ],
}

describe('pictures in a document', () => {
  it('are found at any depth, each once, and not where they come from elsewhere', () => {
    expect(picturesIn(doc)).toEqual([id(1), id(2)])
    expect(picturesIn({ type: 'image', attrs: { src: 'https://elsewhere.example/x.png' } })).toEqual([])
    expect(pictureWords(doc)).toEqual(['The old mole'])
  })
  it('go when their files do not come with the text; everything else stays', () => {
    expect(withPicturesOf(doc, [id(1)])).toEqual({
      type: 'doc',
      content: [words, picture(1, 'The old mole'), { type: 'blockquote', content: [words] }, picture(1)],
    })
    expect(withPicturesOf(doc, [id(1), id(2)])).toEqual(doc)
    expect(picturesIn(withPicturesOf(doc, []))).toEqual([])
  })
})
