import { escapeHTML, escapeHTMLAttribute, renderJSONContentToString, serializeChildrenToHTMLString } from '@tiptap/static-renderer/json/html-string'
import katex from 'katex'
import sanitizeHtml from 'sanitize-html'
import { measureText, type TextMeasure } from '#core/contributing/measureText'
import type { RichNode } from '#core/contributing/richText'

export interface RenderedDoc extends TextMeasure { readonly doc: RichNode, readonly html: string, readonly sources: number }

const wrap = (tag: string) => ({ children }: { children?: string | string[] }) => `<${tag}>${serializeChildrenToHTMLString(children)}</${tag}>`
const attribute = (node: { attrs?: Record<string, unknown> }, name: string) => escapeHTMLAttribute(String(node.attrs?.[name] ?? ''))

/** A formula as MathML, which browsers draw and read out themselves; one that cannot be read stays as it was written. */
const formula = (latex: string, displayMode: boolean): string =>
  katex.renderToString(latex, { output: 'mathml', displayMode, throwOnError: false, strict: 'ignore', maxExpand: 100 })

const render = renderJSONContentToString({
  nodeMapping: {
    doc: ({ children }) => serializeChildrenToHTMLString(children),
    text: ({ node }) => escapeHTML(node.text ?? ''),
    paragraph: wrap('p'), heading: wrap('h3'), blockquote: wrap('blockquote'),
    bulletList: wrap('ul'), orderedList: wrap('ol'), listItem: wrap('li'),
    hardBreak: () => '<br>', horizontalRule: () => '<hr>',
    table: ({ children }) => `<table><tbody>${serializeChildrenToHTMLString(children)}</tbody></table>`, tableRow: wrap('tr'), tableCell: wrap('td'), tableHeader: wrap('th'),
    inlineMath: ({ node }) => formula(String(node.attrs?.latex ?? ''), false),
    blockMath: ({ node }) => `<p>${formula(String(node.attrs?.latex ?? ''), true)}</p>`,
    image: ({ node }) => `<img src="${attribute(node, 'src')}" alt="${attribute(node, 'alt')}" loading="lazy">`,
    recording: ({ node }) => /^audio\//.test(String(node.attrs?.type ?? ''))
      ? `<audio controls preload="metadata" src="${attribute(node, 'src')}"></audio>`
      : `<video controls preload="metadata" src="${attribute(node, 'src')}"><track kind="captions" src="${attribute(node, 'src')}/transcript" srclang="en" label="Transcript"></video>`,
    paper: ({ node }) => `<p class="paper"><a href="${attribute(node, 'src')}">${escapeHTML(String(node.attrs?.name ?? 'file'))}</a></p>`,
  },
  markMapping: {
    bold: wrap('strong'), italic: wrap('em'), underline: wrap('u'), strike: wrap('s'), code: wrap('code'),
    link: ({ mark, children }) => `<a href="${escapeHTMLAttribute(String(mark.attrs?.href ?? ''))}">${serializeChildrenToHTMLString(children)}</a>`,
  },
})

const MATHML = ['math', 'semantics', 'annotation', 'mrow', 'mi', 'mo', 'mn', 'mtext', 'mspace', 'msup', 'msub', 'msubsup', 'mfrac', 'msqrt', 'mroot', 'mover', 'munder', 'munderover', 'mtable', 'mtr', 'mtd', 'mstyle', 'mpadded', 'mphantom', 'menclose']
const FILE = /^\/api\/files\/[0-9a-f-]{36}(\/transcript)?$/

/**
 * Renders a document once, when it is written, through the one sanitiser; reading never renders.
 * The contract has refused unknown nodes already: this is the second lock on the same door.
 */
export function renderDoc(doc: RichNode): RenderedDoc {
  const html = sanitizeHtml(render({ content: doc as never }), {
    allowedTags: ['p', 'h3', 'blockquote', 'ul', 'ol', 'li', 'br', 'hr', 'strong', 'em', 'u', 's', 'code', 'a', 'table', 'tbody', 'tr', 'td', 'th', 'img', 'audio', 'video', 'track', ...MATHML],
    allowedAttributes: {
      'a': ['href', 'rel', 'target'], 'img': ['src', 'alt', 'loading'], 'audio': ['src', 'controls', 'preload'], 'video': ['src', 'controls', 'preload'], 'track': ['src', 'kind', 'srclang', 'label'], 'p': ['class'],
      'math': ['display'], 'mo': ['stretchy', 'fence', 'separator', 'lspace', 'rspace'], 'mi': ['mathvariant'], 'mspace': ['width'], 'mtable': ['columnalign', 'rowspacing'], 'mstyle': ['displaystyle', 'scriptlevel'], 'mover': ['accent'], 'munder': ['accentunder'], 'mfrac': ['linethickness'], 'annotation': ['encoding'],
    },
    allowedClasses: { p: ['paper'] },
    allowedSchemes: ['http', 'https', 'mailto'],
    transformTags: { a: (name, attribs) => ({ tagName: name, attribs: FILE.test(attribs.href ?? '') ? { href: attribs.href! } as Record<string, string> : { href: attribs.href ?? '', rel: 'noopener nofollow ugc', target: '_blank' } }) },
    // what is shown or played in place comes from the seminar's own files
    exclusiveFilter: frame => ['img', 'audio', 'video', 'track'].includes(frame.tag) && !FILE.test(frame.attribs.src ?? ''),
  })
  return { doc, html, sources: sourcesIn(doc).size, ...measureText(doc) }
}

/** Addresses a document links to, each once. */
function sourcesIn(node: RichNode): Set<string> {
  const own = (node.marks ?? []).filter(m => m.type === 'link').map(m => String(m.attrs?.href ?? '')).filter(href => /^https?:/i.test(href))
  return new Set([...own, ...(node.content ?? []).flatMap(child => [...sourcesIn(child)])])
}
