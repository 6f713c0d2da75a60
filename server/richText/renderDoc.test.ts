import { describe, expect, it } from 'vitest'
import type { RichNode } from '#core/contributing/richText'
import { RichDoc } from '#shared/contributing/richDoc'
import { renderDoc, sanitise } from './renderDoc'

const doc = (...paragraphs: RichNode[][]): RichNode => ({
  type: 'doc',
  content: paragraphs.map(content => ({ type: 'paragraph', content })),
})
const words = (text: string, lang?: string): RichNode => ({
  type: 'text',
  text,
  ...(lang && { marks: [{ type: 'language', attrs: { lang } }] }),
})
const GERMAN =
  'Der Hafen war im Winter geschlossen, und die Schiffe lagen vor der Mole im Eis fest. Erst im Frühjahr, wenn die Fahrrinne wieder offen war, kamen die Waren in die Stadt, und mit ihnen die Nachrichten aus den anderen Häfen.'
const ENGLISH =
  'A breakwater is an institution before it is a wall, and the wall is the cheapest part of it. Whoever keeps it has to be paid, watched and replaced, and each of these is written down by somebody whose own pay is not.'

describe('what a text can hold', () => {
  it('is raised and lowered letters and headings of two levels, written and stored the same', () => {
    const raised = (text: string, type: string): RichNode => ({ type: 'text', text, marks: [{ type }] })
    const text: RichNode = {
      type: 'doc',
      content: [
        { type: 'heading', attrs: { level: 4 }, content: [words('Lead')] },
        {
          type: 'paragraph',
          content: [words('12 m'), raised('2', 'superscript'), words(' of PbCO'), raised('3', 'subscript')],
        },
      ],
    }
    expect(RichDoc.parse(text)).toEqual(text)
    const { html, words: count } = renderDoc(text)
    expect(html).toBe('<h4>Lead</h4><p>12 m<sup>2</sup> of PbCO<sub>3</sub></p>')
    expect(count).toBe(5)
    expect(sanitise(html)).toBe(html)
  })
})

describe('the language of what people write', () => {
  it('is told of a paragraph in another language, and of no other', () => {
    expect(renderDoc(doc([words(ENGLISH)], [words(GERMAN)])).html).toBe(
      `<p>${ENGLISH}</p><p lang="de">${GERMAN}</p>`,
    )
  })
  it('is what somebody said of the words, and then nothing is guessed about their paragraph', () => {
    expect(renderDoc(doc([words('The '), words('Hafenordnung', 'de'), words(' of 1612.')])).html).toBe(
      '<p>The <span lang="de">Hafenordnung</span> of 1612.</p>',
    )
    expect(renderDoc(doc([words(GERMAN, 'nl')])).html).toBe(`<p><span lang="nl">${GERMAN}</span></p>`)
    expect(renderDoc(doc([words(GERMAN, 'en')])).html).toBe(`<p><span lang="en">${GERMAN}</span></p>`)
  })
  it('is one that is known, whatever is sent', () => {
    const sent = doc([words('Salve', 'la'), words('!', 'la" onclick="x')])
    const kept = RichDoc.parse(sent)
    expect(kept).toEqual(doc([words('Salve', 'la'), { type: 'text', text: '!' }]))
    expect(renderDoc(sent).html).toBe('<p><span lang="la">Salve</span>!</p>')
  })
  it('leaves formulas as they are', () => {
    const { html } = renderDoc(doc([{ type: 'inlineMath', attrs: { latex: 'l' } }]))
    expect(html).toMatch(/^<p><math>.*<\/math><\/p>$/)
  })
  it('stays when what was written is cleaned once more', () => {
    const { html } = renderDoc(doc([words(GERMAN)], [words('Salve', 'la')]))
    expect(sanitise(html)).toBe(html)
  })
})
