import { Parser } from 'htmlparser2'
import sanitizeHtml from 'sanitize-html'
import { BlockText } from '#core/kinds/reading/blockText'
import { joinParts, type TextPart } from '#core/kinds/reading/reading'
import { readableText } from '#core/kinds/reading/readableText'

/** One section before it has its place: marked-up text, sanitised. */
export interface Section {
  readonly label: string | null
  readonly heading: string | null
  readonly html: string
}
export interface ArticleText {
  readonly words: string
  readonly parts: TextPart[]
  readonly html: string[]
}

const LONG_SECTION = 1200 // words from which a section is divided
const STRETCH = 700 // words of each of its stretches, about
const MARK = 'data-printed-page'

/**
 * Text from outside as what may be shown: words, structure, notes and tables. Nothing runs, nothing is fetched; links
 * inside the text keep to it.
 */
export function cleanText(html: string): string {
  return sanitizeHtml(html, {
    allowedTags: [
      'p',
      'h1',
      'h2',
      'h3',
      'h4',
      'blockquote',
      'ul',
      'ol',
      'li',
      'dl',
      'dt',
      'dd',
      'br',
      'hr',
      'strong',
      'em',
      'b',
      'i',
      'u',
      's',
      'sup',
      'sub',
      'small',
      'cite',
      'q',
      'code',
      'pre',
      'a',
      'table',
      'thead',
      'tbody',
      'tr',
      'td',
      'th',
      'caption',
      'figure',
      'figcaption',
      'section',
      'div',
      'span',
      'bdi',
      'bdo',
      'img',
    ],
    allowedAttributes: {
      '*': ['dir', 'lang', 'id'],
      a: ['href', 'rel', 'target'],
      td: ['colspan', 'rowspan'],
      th: ['colspan', 'rowspan'],
      ol: ['start'],
      span: [MARK],
      img: ['src', 'alt'],
    },
    allowedSchemes: ['http', 'https', 'mailto'],
    allowedSchemesByTag: { img: ['data'] },
    transformTags: {
      '*': (tagName, attribs) => ({
        tagName,
        attribs: { ...pageMark(attribs), ...attribs, ...(attribs.id && { id: prefixed(attribs.id) }) },
      }),
      img: (_tagName, attribs) => pictureOf(attribs),
      a: (tagName, attribs) => ({
        tagName,
        attribs: { ...attribs, ...(attribs.id && { id: prefixed(attribs.id) }), ...linkOf(attribs.href) },
      }),
    },
    nonTextTags: ['script', 'style', 'textarea', 'option', 'noscript', 'title', 'head'],
  })
}
/** Ids of a text are kept apart from those of the page it is shown on. What has been cleaned once stays as it is. */
const prefixed = (id: string): string => (id.startsWith('t-') ? id : `t-${id}`)
const linkOf = (href: string | undefined): Record<string, string> => {
  const within = /^[^:]*#(.+)$/.exec(href ?? '')?.[1]
  return within ? { href: `#${prefixed(within)}` } : { rel: 'noopener nofollow', target: '_blank' }
}
/** Pictures that came within the text stay; of others, which would have to be fetched, their description does. */
function pictureOf({ src = '', alt = '' }: Record<string, string>): sanitizeHtml.Tag {
  if (/^data:image\/(png|jpeg|gif|webp);base64,/.test(src)) return { tagName: 'img', attribs: { src, alt } }
  const described = alt.trim()
  return { tagName: 'span', attribs: {}, text: described === '' ? '' : `Picture: ${described}` }
}
/** Where a page of the printed book begins (EPUB structural semantics, `pagebreak`). */
const pageMark = (attribs: Record<string, string>): Record<string, string> =>
  /\bpagebreak\b/.test(attribs['epub:type'] ?? '') || attribs.role === 'doc-pagebreak'
    ? { [MARK]: attribs.title ?? attribs['aria-label'] ?? /\d+$/.exec(attribs.id ?? '')?.[0] ?? '' }
    : {}

/** The words of marked-up text, as a page that shows it reads them. */
export function wordsOf(html: string): string {
  const text = new BlockText()
  const parser = new Parser({
    onopentagname: tag => text.edge(tag),
    ontext: words => {
      text.put(words)
    },
    onclosetag: tag => text.edge(tag),
  })
  parser.end(html)
  return readableText(text.source).text
}

/** Where the elements of marked-up text stand that are not inside another, with their names. */
function topLevel(html: string): Array<{
  readonly tag: string
  readonly start: number
  readonly end: number
  readonly page: string | null
}> {
  const found: Array<{ tag: string; start: number; end: number; page: string | null }> = []
  let depth = 0
  let page: string | null = null
  const parser: Parser = new Parser({
    onopentag: (tag, attribs) => {
      if (depth++ === 0) found.push({ tag, start: parser.startIndex, end: html.length, page: null })
      if (attribs[MARK] !== undefined) {
        page = attribs[MARK]!
        const last = found.at(-1)!
        last.page ??= page
      }
    },
    onclosetag: () => {
      if (--depth === 0) found.at(-1)!.end = parser.endIndex + 1
    },
    ontext: words => {
      if (depth === 0 && words.trim() !== '')
        found.push({ tag: 'p', start: parser.startIndex, end: parser.endIndex + 1, page: null })
    },
  })
  parser.end(html)
  return found
}

/** Divides a text at its headings, at the pages of the book it was printed in where they are marked, else by length. */
export function divide(html: string): Section[] {
  const clean = unwrapped(cleanText(html))
  const blocks = topLevel(clean)
  const printed = blocks.some(b => b.page !== null)
  const sections: Array<{ label: string | null; heading: string | null; blocks: string[]; words: number }> =
    []
  for (const block of blocks) {
    const source = clean.slice(block.start, block.end)
    const isHeading = block.tag === 'h1' || block.tag === 'h2'
    const words = wordsOf(source)
    const last = sections.at(-1)
    const long =
      !printed &&
      last !== undefined &&
      last.words >= STRETCH &&
      blocks.length > 1 &&
      last.words + words.length / 6 > LONG_SECTION
    if (!last || block.page !== null || (isHeading && !printed && last.words > 0) || long)
      sections.push({
        label: block.page,
        heading: isHeading ? words : null,
        blocks: [source],
        words: words.split(' ').length,
      })
    else {
      if (isHeading) last.heading ??= words
      last.blocks.push(source)
      last.words += words === '' ? 0 : words.split(' ').length
    }
  }
  return sections
    .map(({ label, heading, blocks: list }) => ({ label, heading, html: list.join('\n') }))
    .filter(s => wordsOf(s.html) !== '')
}

/** Without boxes that hold everything, so that its headings and paragraphs can be told apart. */
function unwrapped(html: string): string {
  for (let inner = html.trim(); ;) {
    const [only, second] = topLevel(inner)
    if (!only || second || !['div', 'section'].includes(only.tag)) return inner
    inner = inner.slice(inner.indexOf('>', only.start) + 1, inner.lastIndexOf('</', only.end)).trim()
  }
}

/** Sections laid end to end. */
export function layArticle(sections: readonly Section[]): ArticleText {
  const { text, parts } = joinParts(
    sections.map((s, i) => ({
      text: wordsOf(s.html),
      label: s.label ?? String(i + 1),
      heading: s.heading,
      aspect: null,
      drawnOnly: false,
      time: null,
    })),
  )
  return { words: text, parts, html: sections.map(s => s.html) }
}
