import { describe, expect, it } from 'vitest'
import { seededRandom } from '#core/chance/seededRandom'
import { asHtml, linkTexts } from './linkTexts'
import { TermFinder } from './termFinder'

const finder = new TermFinder([
  { id: 'a', forms: ['mole'], whole: true },
  { id: 'b', forms: ['toll roll', 'tolls'], whole: true },
])
const link = (...texts: string[]) => linkTexts(texts, finder, id => `/${id}`)

describe('terms in lines of plain text', () => {
  it('are links where they stand first, and stay within their line', () => {
    expect(link('The mole, and the mole.', 'The toll', 'roll of the mole; a toll roll')).toEqual([
      'The <a class="term" data-term="a" href="/a">mole</a>, and the mole.',
      'The toll',
      'roll of the mole; a <a class="term" data-term="b" href="/b">toll roll</a>',
    ])
    expect(link()).toEqual([])
    expect(link('')).toEqual([''])
  })

  it('never make markup of what is text', () => {
    expect(link('<b>mole</b> & "tolls" <br>', '&lt;')).toEqual([
      '&lt;b&gt;<a class="term" data-term="a" href="/a">mole</a>&lt;/b&gt; &amp; &quot;<a class="term" data-term="b" href="/b">tolls</a>&quot; &lt;br&gt;',
      '&amp;lt;',
    ])
  })

  it('leave each line as it was but for the links, whatever it holds', () => {
    const pieces = [
      'mole',
      ' ',
      '<',
      '>',
      '&',
      '"',
      '<br>',
      '&amp;',
      'toll',
      'roll',
      '\u00ad',
      'é',
      '🐟',
      "'",
    ]
    for (let seed = 0; seed < 300; seed++) {
      const random = seededRandom(seed)
      const texts = Array.from({ length: 1 + Math.floor(random() * 4) }, () =>
        Array.from(
          { length: Math.floor(random() * 9) },
          () => pieces[Math.floor(random() * pieces.length)],
        ).join(''),
      )
      const bare = link(...texts).map(html => html.replace(/<a class="term"[^>]*>|<\/a>/g, ''))
      expect(bare, `seed ${seed}`).toEqual(texts.map(asHtml))
    }
  })
})
