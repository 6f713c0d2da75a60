import { escapeHTML } from '@tiptap/static-renderer/json/html-string'
import { Readability } from '@mozilla/readability'
import { parseHTML } from 'linkedom'
import { readableText } from '#core/kinds/reading/readableText'

/** What a page of the web holds that is to be read. */
export interface WebPage {
  readonly html: string // its article, or all of it; not sanitised
  readonly title: string | null
  readonly author: string | null
  readonly language: string | null // as the page says, for example `de-AT`
  readonly isWithout: boolean // what stood around the article was left out
}

/** What stands around an article: places to go, forms, what is sold. */
const AROUND = 'nav, footer, aside, form, [role="navigation"], [role="contentinfo"], [role="complementary"]'
const LEAST = 0.25 // of a page's words: where an article has fewer, it was not the article
const MOST_ELEMENTS = 60_000

/**
 * The article of an HTML page, without navigation, footer and forms; the page as it is where there is nothing of the kind
 * in it. Nothing of it is run or fetched.
 */
export function readWebPage(source: string): WebPage {
  const { document } = parseHTML(/<html[\s>]/i.test(source) ? source : `<html><body>${source}</body></html>`)
  const meta = (name: string) => document.querySelector(`meta[name="${name}" i]`)?.getAttribute('content')
  const about = {
    title: textOf(document.querySelector('title')?.textContent),
    author: textOf(meta('author')),
    language: document.documentElement.getAttribute('lang'),
  }
  const whole = { html: document.body.innerHTML, ...about, isWithout: false }
  const around = [...document.querySelectorAll(AROUND)]
  if (around.length === 0) return whole
  // an article's own side notes and footer, where its notes may stand, are of it
  for (const element of around) if (!element.closest('article')) element.remove()
  const rest = { html: document.body.innerHTML, ...about, isWithout: true }
  const all = document.body.textContent.length
  // what is read is changed by reading it
  const article = parsed(
    new Readability(document.cloneNode(true) as Document, {
      charThreshold: 200,
      maxElemsToParse: MOST_ELEMENTS,
      serializer: node => (node as Element).innerHTML,
    }),
  )
  if (!article?.content || (article.textContent ?? '').length < all * LEAST) return rest
  const title = textOf(article.title) ?? about.title
  const heading = article.content.includes('<h1') || !title ? '' : `<h1>${escapeHTML(title)}</h1>`
  return {
    html: heading + article.content,
    title,
    author: textOf(article.byline) ?? about.author,
    language: article.lang || about.language,
    isWithout: true,
  }
}

function parsed(reader: Readability<string>) {
  try {
    return reader.parse()
  } catch {
    return null // too many elements
  }
}

const textOf = (text: string | null | undefined): string | null =>
  readableText(text ?? '')
    .text.trim()
    .slice(0, 200) || null
