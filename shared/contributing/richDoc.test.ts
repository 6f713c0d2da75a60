import { describe, expect, it } from 'vitest'
import type { RichNode } from '#core/contributing/richText'
import { renderDoc } from '#server/richText/renderDoc'
import { PageDoc, RichDoc } from './richDoc'

const doc = (...content: unknown[]) => ({ type: 'doc', content: [{ type: 'paragraph', content }] })
const formula = (latex: string) => ({ type: 'inlineMath', attrs: { latex } })
const times = <T>(n: number, item: T) => Array.from({ length: n }, () => item)
const refusal = (value: unknown, contract = RichDoc) => contract.safeParse(value).error?.issues[0]?.message

describe('a text that is sent', () => {
  it('has a limit of pieces, of which a page has more', () => {
    const bold = { type: 'text', text: 'a', marks: [{ type: 'bold' }] }
    expect(refusal(doc(...times(2900, bold)))).toBeUndefined()
    expect(refusal(doc(...times(3100, bold)))).toContain('6,202 pieces')
    expect(refusal(doc(...times(3100, bold)), PageDoc)).toBeUndefined()
    expect(refusal(doc(...times(10_100, bold)), PageDoc)).toContain('20,000 fit')
  })

  it('has a limit of formulas, and of what they are long together', () => {
    expect(refusal(doc(...times(300, formula('x'))))).toBeUndefined()
    expect(refusal(doc(...times(301, formula('x'))))).toContain('301 formulas')
    expect(refusal(doc(...times(20, formula('x'.repeat(1000)))))).toBeUndefined()
    expect(refusal(doc(...times(21, formula('x'.repeat(1000)))))).toContain('20,000 characters')
  })

  it('defines no commands in formulas', () => {
    for (const latex of [
      '\\def\\a{xx}\\a\\a',
      '\\newcommand{\\a}{x}\\a',
      '\\gdef \\a{x}',
      '\\let\\a=\\b',
      '\\csname def\\endcsname\\a{x}',
    ])
      expect(refusal(doc(formula(latex))), latex).toContain('defines a command')
    for (const latex of ['\\left( x \\right)', '\\det A', '\\Delta t', '\\letter'])
      expect(refusal(doc(formula(latex))), latex).toBeUndefined()
  })

  it('is refused in words whatever its shape is', () => {
    let deep: unknown = { type: 'paragraph' }
    for (let i = 0; i < 100_000; i++) deep = { type: 'blockquote', content: [deep] }
    for (const value of [null, 7, [], { type: 'paragraph' }, { type: 'doc', content: [deep] }])
      expect(refusal(value)).toMatch(/\.$/)
    for (const value of [
      { type: 'doc', content: 'abc' },
      { type: 'doc', content: [null, 7, 'x', { type: 3 }] },
      { type: 'doc', content: [{ type: 'paragraph', content: { length: 9 }, marks: 'x' }] },
    ])
      expect(refusal(value)).toBeUndefined() // what is no node is left out
  })
})

describe('a text that is stored', () => {
  it('is drawn no longer than a few times what was written, whatever its formulas do', () => {
    const hostile = [
      `\\def\\a{${'x^2'.repeat(200)}}${'\\a'.repeat(90)}`,
      '\\sqrt{'.repeat(140) + 'x' + '}'.repeat(140),
      '\\bigl('.repeat(160),
      '\\begin{matrix}' + '&'.repeat(900) + '\\end{matrix}',
    ]
    for (const latex of hostile) {
      const { html } = renderDoc(doc(formula(latex)) as RichNode)
      expect(html.length, latex.slice(0, 20)).toBeLessThan(110_000)
      expect(html).toContain('</')
    }
  })
})
