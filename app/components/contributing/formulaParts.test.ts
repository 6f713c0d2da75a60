import katex from 'katex'
import { expect, it } from 'vitest'
import { FORMULA_PARTS, withPart } from './formulaParts'

const part = (name: string) => FORMULA_PARTS.find(p => p.name === name)!

it('puts a part in at the caret, around what is chosen, with the caret in its first place', () => {
  expect(withPart('d = ', [4, 4], part('fraction'))).toEqual({ latex: 'd = \\frac{}{}', caret: 10 })
  expect(withPart('a + b', [0, 5], part('root'))).toEqual({ latex: '\\sqrt{a + b}', caret: 11 })
  expect(withPart('ab', [1, 1], part('times'))).toEqual({ latex: 'a\\times b', caret: 8 })
})

it.each(FORMULA_PARTS.map(p => [p.name, p] as const))('%s can be drawn, empty and filled', (_, p) => {
  const draw = (latex: string) => katex.renderToString(latex, { output: 'mathml', throwOnError: true })
  for (const latex of [p.drawn, `x${p.latex.replace('|', 'y')}`, withPart('x', [1, 1], p).latex])
    expect(draw(latex)).toContain('<math')
})
