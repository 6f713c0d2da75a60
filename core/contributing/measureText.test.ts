import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { countSentences, countWords, measureText } from './measureText'
import { depthOf, paragraphs, plainText, type RichNode } from './richText'

const text = (value: string): RichNode => ({ type: 'text', text: value })
const p = (...content: RichNode[]): RichNode => ({ type: 'paragraph', content })

describe('measuring text', () => {
  it('counts words as people do: figures and contractions are one, marks are none', () => {
    expect(countWords("The ballast book of 1686 isn't mine.")).toBe(7)
    expect(countWords('— … !')).toBe(0)
    expect(countWords('')).toBe(0)
    expect(countWords('Qasr el-Mina')).toBe(3)
  })
  it('counts sentences over lines and leaves empty ones out', () => {
    expect(countSentences('Who paid? The guild did not.\nSo the herring did.')).toBe(3)
    expect(countSentences('\n\n')).toBe(0)
  })
  it('leaves quotations of others out of the words but keeps them in the text', () => {
    const doc: RichNode = {
      type: 'doc',
      content: [
        { type: 'blockquote', content: [p(text('every hull above twenty lasts'))] },
        p(text('I count '), { ...text('nineteen'), marks: [{ type: 'bold' }] }, text('.')),
      ],
    }
    expect(measureText(doc)).toEqual({
      text: 'every hull above twenty lasts\nI count nineteen.',
      words: 3,
      sentences: 1,
    })
  })
  it('does not glue words across blocks and hard breaks', () => {
    const doc: RichNode = {
      type: 'doc',
      content: [p(text('one'), { type: 'hardBreak' }, text('two')), p(text('three'))],
    }
    expect(plainText(doc)).toBe('one\ntwo\nthree')
    expect(measureText(doc).words).toBe(3)
  })
  it('knows how deep a document goes', () => {
    expect(depthOf({ type: 'doc' })).toBe(1)
    expect(depthOf(paragraphs('a\nb'))).toBe(3)
  })
  it('adds up: words of paragraphs are the words of their lines', () => {
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[a-z]{1,8}( [a-z]{1,8}){0,5}$/), { maxLength: 8 }), lines => {
        expect(measureText(paragraphs(lines.join('\n'))).words).toBe(
          lines.reduce((n, line) => n + countWords(line), 0),
        )
      }),
    )
  })
})
