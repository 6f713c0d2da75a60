/** A part of a formula: its name, how it is drawn, and what it puts in, with the caret where `|` stands. */
export interface FormulaPart {
  readonly name: string
  readonly drawn: string
  readonly latex: string
}

const sign = (name: string, latex: string): FormulaPart => ({ name, drawn: latex, latex: `${latex} |` })

/** What a formula is put together from without knowing LaTeX. */
export const FORMULA_PARTS: readonly FormulaPart[] = [
  { name: 'fraction', drawn: '\\frac{a}{b}', latex: '\\frac{|}{}' },
  { name: 'root', drawn: '\\sqrt{a}', latex: '\\sqrt{|}' },
  { name: 'power', drawn: 'a^{n}', latex: '^{|}' },
  { name: 'index', drawn: 'a_{i}', latex: '_{|}' },
  { name: 'sum', drawn: '\\sum_{i}^{n}', latex: '\\sum_{|}^{} ' },
  { name: 'integral', drawn: '\\int_{a}^{b}', latex: '\\int_{|}^{} ' },
  { name: 'mean', drawn: '\\bar{x}', latex: '\\bar{|}' },
  { name: 'brackets', drawn: '(a)', latex: '\\left(|\\right)' },
  sign('times', '\\times'),
  sign('dot', '\\cdot'),
  sign('plus or minus', '\\pm'),
  sign('at most', '\\le'),
  sign('at least', '\\ge'),
  sign('not equal', '\\ne'),
  sign('about', '\\approx'),
  sign('leads to', '\\to'),
  sign('infinity', '\\infty'),
  sign('alpha', '\\alpha'),
  sign('beta', '\\beta'),
  sign('delta', '\\delta'),
  sign('lambda', '\\lambda'),
  sign('mu', '\\mu'),
  sign('pi', '\\pi'),
  sign('sigma', '\\sigma'),
  sign('capital delta', '\\Delta'),
  sign('capital sigma', '\\Sigma'),
]

/**
 * A formula with a part put in at the caret. What was chosen goes where the caret of the part would be.
 *
 * @returns the formula, and the place of the caret in it
 */
export function withPart(
  latex: string,
  [from, to]: readonly [number, number],
  part: FormulaPart,
): { readonly latex: string; readonly caret: number } {
  const [before = '', after = ''] = part.latex.split('|')
  const start = latex.slice(0, from) + before + latex.slice(from, to)
  return { latex: start + after + latex.slice(to), caret: start.length }
}
