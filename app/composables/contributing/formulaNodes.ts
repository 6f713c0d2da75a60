import { BlockMath, InlineMath } from '@tiptap/extension-mathematics'

/** Formulas in a text, drawn as MathML, as the server renders them. */
export const formulaNodes = (onFormula: (latex: string, pos: number) => void) => {
  const katexOptions = { output: 'mathml' as const, throwOnError: false }
  return [
    InlineMath.configure({ katexOptions, onClick: (node, pos) => onFormula(String(node.attrs.latex), pos) }),
    BlockMath.configure({ katexOptions, onClick: (node, pos) => onFormula(String(node.attrs.latex), pos) }),
  ]
}
