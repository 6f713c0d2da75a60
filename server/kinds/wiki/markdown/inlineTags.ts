import type { RichNode } from '#core/contributing/richText'

type Mark = NonNullable<RichNode['marks']>[number]

/**
 * What Markdown has no sign for and HTML in it has (CommonMark 0.31, 6.6): the elements that a page's marks are written as
 * and read from. Any other HTML stays words.
 */
const ELEMENTS: Readonly<Record<string, Mark['type']>> = {
  u: 'underline',
  sup: 'superscript',
  sub: 'subscript',
}

/** The tags around words with a mark, or null where Markdown has a sign for it. */
export function tagsOf(mark: Mark): readonly [open: string, close: string] | null {
  if (mark.type === 'language') return [`<span lang="${String(mark.attrs?.lang)}">`, '</span>']
  const [element] = Object.entries(ELEMENTS).find(([, type]) => type === mark.type) ?? []
  return element ? [`<${element}>`, `</${element}>`] : null
}

/** The mark a tag opens and the tag that closes it, or null where it opens none. */
export function openedBy(html: string): { readonly mark: Mark; readonly close: string } | null {
  const element = /^<(u|sup|sub)>$/i.exec(html)?.[1]?.toLowerCase()
  if (element) return { mark: { type: ELEMENTS[element]! }, close: `</${element}>` }
  const lang = /^<span lang="([\w-]{2,35})">$/i.exec(html)?.[1]
  return lang ? { mark: { type: 'language', attrs: { lang } }, close: '</span>' } : null
}

export const isLineBreak = (html: string): boolean => /^<br\s*\/?>$/i.test(html)
