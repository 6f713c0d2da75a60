import { escapeHTML, escapeHTMLAttribute, renderJSONContentToString, serializeChildrenToHTMLString } from '@tiptap/static-renderer/json/html-string'
import sanitizeHtml from 'sanitize-html'
import { measureText, type TextMeasure } from '#core/contributing/measureText'
import type { RichNode } from '#core/contributing/richText'

export interface RenderedDoc extends TextMeasure { readonly doc: RichNode, readonly html: string }

const wrap = (tag: string) => ({ children }: { children?: string | string[] }) => `<${tag}>${serializeChildrenToHTMLString(children)}</${tag}>`

const render = renderJSONContentToString({
  nodeMapping: {
    doc: ({ children }) => serializeChildrenToHTMLString(children),
    text: ({ node }) => escapeHTML(node.text ?? ''),
    paragraph: wrap('p'), heading: wrap('h3'), blockquote: wrap('blockquote'),
    bulletList: wrap('ul'), orderedList: wrap('ol'), listItem: wrap('li'),
    hardBreak: () => '<br>', horizontalRule: () => '<hr>',
  },
  markMapping: {
    bold: wrap('strong'), italic: wrap('em'), underline: wrap('u'), strike: wrap('s'), code: wrap('code'),
    link: ({ mark, children }) => `<a href="${escapeHTMLAttribute(String(mark.attrs?.href ?? ''))}">${serializeChildrenToHTMLString(children)}</a>`,
  },
})

/**
 * Renders a document once, when it is written, through the one sanitiser; reading never renders.
 * The contract has refused unknown nodes already: this is the second lock on the same door.
 */
export function renderDoc(doc: RichNode): RenderedDoc {
  const html = sanitizeHtml(render({ content: doc as never }), {
    allowedTags: ['p', 'h3', 'blockquote', 'ul', 'ol', 'li', 'br', 'hr', 'strong', 'em', 'u', 's', 'code', 'a'],
    allowedAttributes: { a: ['href', 'rel', 'target'] },
    allowedSchemes: ['http', 'https', 'mailto'],
    transformTags: { a: sanitizeHtml.simpleTransform('a', { rel: 'noopener nofollow ugc', target: '_blank' }) },
  })
  return { doc, html, ...measureText(doc) }
}
