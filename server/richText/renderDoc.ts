import {
  escapeHTML,
  escapeHTMLAttribute,
  renderJSONContentToString,
  serializeChildrenToHTMLString,
} from '@tiptap/static-renderer/json/html-string'
import katex from 'katex'
import sanitizeHtml from 'sanitize-html'
import { definesCommands } from '#core/contributing/formula'
import { measureText, type TextMeasure } from '#core/contributing/measureText'
import type { JSONContent } from '@tiptap/core'
import { plainText, type RichNode } from '#core/contributing/richText'
import { guessLanguage } from '#core/language/guessLanguage'
import { isLanguage, languageCodes, PAGE_LANGUAGE, type Language } from '#core/language/languages'

export interface RenderedDoc extends TextMeasure {
  readonly doc: RichNode
  readonly html: string
  readonly sources: number
}

const wrap =
  (tag: string) =>
  ({ children }: { children?: string | string[] }) =>
    `<${tag}>${serializeChildrenToHTMLString(children)}</${tag}>`
const wrapWithLanguage = (tag: string, language: unknown, children?: string | string[]) =>
  `<${tag}${isLanguage(language) ? ` lang="${language}"` : ''}>${serializeChildrenToHTMLString(children)}</${tag}>`
/** What a paragraph is guessed to be written in, where that is not the page's and nothing in it says. */
function languageOf(paragraph: RichNode): Language | null {
  const isMarked = (node: RichNode): boolean =>
    (node.marks?.some(m => m.type === 'language') ?? false) || (node.content?.some(isMarked) ?? false)
  if (isMarked(paragraph)) return null
  const guessed = guessLanguage(plainText(paragraph))
  return guessed === PAGE_LANGUAGE ? null : guessed
}
const attribute = (node: { attrs?: Record<string, unknown> }, name: string) =>
  escapeHTMLAttribute(String(node.attrs?.[name] ?? ''))

const LONGEST_FORMULA = 100_000 // characters of MathML

/** A formula as MathML, which browsers draw and read out themselves; one that cannot be read stays as it was written. */
function formula(latex: string, displayMode: boolean): string {
  if (definesCommands(latex)) return asWritten(latex)
  const drawn = katex.renderToString(latex, {
    output: 'mathml',
    displayMode,
    throwOnError: false,
    strict: 'ignore',
    maxExpand: 100,
  })
  return drawn.length > LONGEST_FORMULA ? asWritten(latex) : drawn
}
const asWritten = (latex: string) => `<code>${escapeHTML(latex)}</code>`

const render = renderJSONContentToString({
  nodeMapping: {
    doc: ({ children }) => serializeChildrenToHTMLString(children),
    text: ({ node }) => escapeHTML(node.text ?? ''),
    paragraph: ({ node, children }) => wrapWithLanguage('p', languageOf(node as RichNode), children),
    heading: ({ node, children }) => wrap(node.attrs?.level === 4 ? 'h4' : 'h3')({ children }),
    blockquote: wrap('blockquote'),
    bulletList: wrap('ul'),
    orderedList: wrap('ol'),
    listItem: wrap('li'),
    hardBreak: () => '<br>',
    horizontalRule: () => '<hr>',
    table: ({ children }) => `<table><tbody>${serializeChildrenToHTMLString(children)}</tbody></table>`,
    tableRow: wrap('tr'),
    tableCell: wrap('td'),
    tableHeader: wrap('th'),
    inlineMath: ({ node }) => formula(String(node.attrs?.latex ?? ''), false),
    blockMath: ({ node }) => `<p>${formula(String(node.attrs?.latex ?? ''), true)}</p>`,
    image: ({ node }) =>
      `<img src="${attribute(node, 'src')}" alt="${attribute(node, 'alt')}" loading="lazy">`,
    recording: ({ node }) =>
      /^audio\//.test(String(node.attrs?.type ?? ''))
        ? `<audio controls preload="metadata" src="${attribute(node, 'src')}"></audio>`
        : `<video controls preload="metadata" src="${attribute(node, 'src')}"><track kind="captions" src="${attribute(node, 'src')}/transcript" srclang="en" label="Transcript"></video>`,
    footnote: ({ node }) =>
      `<sup class="footnote"><a href="#note-${attribute(node, 'number')}" id="cite-${attribute(node, 'number')}">${attribute(node, 'number')}</a></sup>`,
    paper: ({ node }) =>
      `<p class="paper"><a href="${attribute(node, 'src')}">${escapeHTML(String(node.attrs?.name ?? 'file'))}</a></p>`,
  },
  markMapping: {
    bold: wrap('strong'),
    italic: wrap('em'),
    underline: wrap('u'),
    strike: wrap('s'),
    superscript: wrap('sup'),
    subscript: wrap('sub'),
    code: wrap('code'),
    language: ({ mark, children }) => wrapWithLanguage('span', mark.attrs?.lang, children),
    pageLink: ({ mark, children }) =>
      `<a class="page-link" data-page="${escapeHTMLAttribute(String(mark.attrs?.title ?? ''))}" href="?to=${encodeURIComponent(String(mark.attrs?.title ?? ''))}">${serializeChildrenToHTMLString(children)}</a>`,
    link: ({ mark, children }) =>
      `<a href="${escapeHTMLAttribute(String(mark.attrs?.href ?? ''))}">${serializeChildrenToHTMLString(children)}</a>`,
  },
})

const MATHML = [
  'math',
  'semantics',
  'annotation',
  'mrow',
  'mi',
  'mo',
  'mn',
  'mtext',
  'mspace',
  'msup',
  'msub',
  'msubsup',
  'mfrac',
  'msqrt',
  'mroot',
  'mover',
  'munder',
  'munderover',
  'mtable',
  'mtr',
  'mtd',
  'mstyle',
  'mpadded',
  'mphantom',
  'menclose',
]
/** Our own anchors, between a footnote and where it is cited. */
const NOTE = /^#?(note|cite)-\d+$/
const FILE = /^\/api\/files\/[0-9a-f-]{36}(\/transcript)?$/

/**
 * Renders a document once, when it is written, through the one sanitiser; reading never renders.
 * The contract has refused unknown nodes already: this is the second lock on the same door.
 */
export function renderDoc(doc: RichNode): RenderedDoc {
  const notes: RichNode[] = []
  const html = sanitise(render({ content: numbered(doc, notes) as JSONContent }) + listOf(notes))
  return { doc, html, sources: countSources(doc), ...measureText(doc) }
}

/** HTML with nothing in it but what a document is rendered as. What it has written once it leaves as it is. */
export const sanitise = (html: string): string =>
  sanitizeHtml(html, {
    allowedTags: [
      'p',
      'h3',
      'h4',
      'sup',
      'sub',
      'blockquote',
      'ul',
      'ol',
      'li',
      'br',
      'hr',
      'strong',
      'em',
      'u',
      's',
      'code',
      'span',
      'a',
      'table',
      'tbody',
      'tr',
      'td',
      'th',
      'img',
      'audio',
      'video',
      'track',
      ...MATHML,
    ],
    allowedAttributes: {
      a: ['href', 'rel', 'target', 'class', 'data-page', 'id'],
      sup: ['class'],
      ol: ['class'],
      li: ['id'],
      img: ['src', 'alt', 'loading'],
      audio: ['src', 'controls', 'preload'],
      video: ['src', 'controls', 'preload'],
      track: ['src', 'kind', 'srclang', 'label'],
      p: ['class', LANG],
      span: [LANG],
      math: ['display'],
      mo: ['stretchy', 'fence', 'separator', 'lspace', 'rspace'],
      mi: ['mathvariant'],
      mspace: ['width'],
      mtable: ['columnalign', 'rowspacing'],
      mstyle: ['displaystyle', 'scriptlevel'],
      mover: ['accent'],
      munder: ['accentunder'],
      mfrac: ['linethickness'],
      annotation: ['encoding'],
    },
    allowedClasses: { p: ['paper'], a: ['page-link'], sup: ['footnote'], ol: ['footnotes'] },
    allowedSchemes: ['http', 'https', 'mailto'],
    transformTags: {
      a: (name, attribs) => ({ tagName: name, attribs: linkAttributes(attribs) }),
      // one that says no language is a formula's: what is in it stays
      span: (name, attribs) => ({ tagName: isLanguage(attribs.lang) ? name : 'none', attribs }),
    },
    // what is shown or played in place comes from the seminar's own files
    exclusiveFilter: frame =>
      ['img', 'audio', 'video', 'track'].includes(frame.tag) && !FILE.test(frame.attribs.src ?? ''),
  })

const LANG = { name: 'lang', multiple: false, values: [...languageCodes] }

/** How many sources a document names: addresses it links to and those of its footnotes, each once. */
export const countSources = (doc: RichNode): number => sourcesIn(doc).size

function linkAttributes(attribs: Readonly<Record<string, string>>): Record<string, string> {
  const { href = '' } = attribs
  if (attribs['data-page'] !== undefined)
    return { class: 'page-link', 'data-page': attribs['data-page'], href }
  if (NOTE.test(href)) return { href, ...(NOTE.test(attribs.id ?? '') && { id: attribs.id! }) }
  return FILE.test(href) ? { href } : { href, rel: 'noopener nofollow ugc', target: '_blank' }
}

/** The document with its footnotes numbered as they come. */
function numbered(node: RichNode, notes: RichNode[]): RichNode {
  if (node.type === 'footnote') {
    notes.push(node)
    return { ...node, attrs: { ...node.attrs, number: notes.length } }
  }
  return node.content ? { ...node, content: node.content.map(child => numbered(child, notes)) } : node
}

function listOf(notes: readonly RichNode[]): string {
  if (notes.length === 0) return ''
  const item = ({ attrs }: RichNode, i: number) =>
    `<li id="note-${i + 1}">${[escapeHTML(String(attrs?.text ?? '')), sourceHtml(String(attrs?.source ?? ''))].filter(Boolean).join(' ')} <a href="#cite-${i + 1}">↑</a></li>`
  return `<ol class="footnotes">${notes.map(item).join('')}</ol>`
}
const sourceHtml = (source: string): string =>
  /^https?:\/\/\S+$/i.test(source)
    ? `<a href="${escapeHTMLAttribute(source)}">${escapeHTML(source)}</a>`
    : escapeHTML(source)

/** Addresses a document links to and sources its footnotes name, each once. */
function sourcesIn(node: RichNode): Set<string> {
  if (node.type === 'footnote')
    return new Set(String(node.attrs?.source ?? '').trim() ? [String(node.attrs?.source).trim()] : [])
  const own = (node.marks ?? [])
    .filter(m => m.type === 'link')
    .map(m => String(m.attrs?.href ?? ''))
    .filter(href => /^https?:/i.test(href))
  return new Set([...own, ...(node.content ?? []).flatMap(child => [...sourcesIn(child)])])
}
