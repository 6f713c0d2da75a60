import { linkTerms } from './linkTerms'
import type { TermFinder } from './termFinder'

const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' }
const BETWEEN = '<br>' // no term reaches across it

/** Plain text as HTML. */
export const asHtml = (text: string): string => text.replace(/[&<>"]/g, sign => SIGNS[sign]!)

/**
 * Lines of plain text as HTML with terms as links: the first of each term in all of them, and none that begins
 * in one line and ends in the next.
 *
 * @param texts lines in their order
 * @param hrefOf where a term's link leads
 * @returns as many pieces of HTML, in the same order; with the links taken out each reads as its line
 */
export const linkTexts = (
  texts: readonly string[],
  finder: TermFinder,
  hrefOf: (id: string) => string,
): string[] =>
  texts.length === 0 ? [] : linkTerms(texts.map(asHtml).join(BETWEEN), finder, hrefOf).split(BETWEEN)
