import { describe, expect, it } from 'vitest'
import { markPassages } from './markPassages'

const mark = (exact: string) => ({ exact, open: '<mark>', close: '</mark>' })

describe('marking passages', () => {
  it('marks the first place where the words stand', () => {
    expect(markPassages('<p>silt is silt</p>', [mark('silt')])).toBe('<p><mark>silt</mark> is silt</p>')
  })
  it('knows escaped text, with quotes escaped or not', () => {
    expect(markPassages('<p>mud &amp; stone</p>', [mark('mud & stone')])).toBe(
      '<p><mark>mud &amp; stone</mark></p>',
    )
    expect(markPassages('<p>the word "quit"</p>', [mark('word "quit"')])).toBe(
      '<p>the <mark>word "quit"</mark></p>',
    )
    expect(markPassages('<p>the word &quot;quit&quot;</p>', [mark('word "quit"')])).toBe(
      '<p>the <mark>word &quot;quit&quot;</mark></p>',
    )
  })
  it('never touches tags or their attributes', () => {
    expect(markPassages('<a href="https://silt.example">mud</a>', [mark('silt')])).toBe(
      '<a href="https://silt.example">mud</a>',
    )
  })
  it('marks several, leaves overlaps and words across tags alone', () => {
    expect(markPassages('<p>one two three</p>', [mark('one'), mark('three'), mark('one two')])).toBe(
      '<p><mark>one</mark> two <mark>three</mark></p>',
    )
    expect(markPassages('<p>one <b>two</b></p>', [mark('one two')])).toBe('<p>one <b>two</b></p>')
  })
})
