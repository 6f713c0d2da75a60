import type { TermFinder } from './termFinder'

/** In these nothing becomes a term: links, code, formulas, what is played or clicked. */
const CLOSED = new Set([
  'a',
  'code',
  'pre',
  'math',
  'audio',
  'video',
  'button',
  'sup',
  'script',
  'style',
  'textarea',
])
/** These stand within a line: a word goes on across them. */
const INLINE = new Set(['em', 'strong', 'u', 's', 'span', 'mark', 'i', 'b', 'sub'])
const ENTITY = /^&(#\d{1,7}|#x[0-9a-f]{1,6}|[a-z]{2,8});/i
const NAMED: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  nbsp: '\u00a0',
}
const GAP = '\u0000' // no term reaches across it

/**
 * A stretch of bare text: where it begins there and in the HTML. `raw` says where each of its characters
 * begins, and its end; null where they stand one for one.
 */
interface Segment {
  readonly at: number
  readonly from: number
  readonly length: number
  readonly raw: readonly number[] | null
}
const offsetOf = ({ from, raw }: Segment, offset: number): number => (raw ? raw[offset]! : from + offset)

/**
 * Makes terms in rendered HTML into links: the first of each term, never inside a link, code or a formula, never the terms
 * in `except`. The HTML is our own, as the one sanitiser lets it through; it stays as it was but for the links.
 *
 * @param hrefOf where a term's link leads
 */
export function linkTerms(
  html: string,
  finder: TermFinder,
  hrefOf: (id: string) => string,
  except: ReadonlySet<string> = new Set(),
): string {
  const { text, segments } = bareText(html)
  const seen = new Set(except)
  const out: string[] = []
  let done = 0
  let s = 0
  for (const { id, start, end } of finder.find(text)) {
    if (seen.has(id)) continue
    while (s + 1 < segments.length && segments[s + 1]!.at <= start) s++
    const segment = segments[s]
    if (!segment || start < segment.at || end > segment.at + segment.length) continue // begins or ends in another element
    seen.add(id)
    const [from, to] = [offsetOf(segment, start - segment.at), offsetOf(segment, end - segment.at)]
    out.push(
      html.slice(done, from),
      `<a class="term" data-term="${id}" href="${hrefOf(id)}">`,
      html.slice(from, to),
      '</a>',
    )
    done = to
  }
  return out.length === 0 ? html : out.join('') + html.slice(done)
}

/** The text of some HTML that may hold terms, and where its characters came from. */
function bareText(html: string): { text: string; segments: Segment[] } {
  const parts: string[] = []
  let length = 0
  const put = (part: string) => {
    parts.push(part)
    length += part.length
  }
  const segments: Segment[] = []
  let closed: string | null = null
  let depth = 0
  let i = 0
  while (i < html.length) {
    if (html[i] === '<') {
      const end = tagEnd(html, i)
      const name = /^<\/?([a-z0-9]+)/i.exec(html.slice(i, i + 20))?.[1]?.toLowerCase() ?? ''
      const closing = html[i + 1] === '/'
      if (closed) {
        if (name === closed) depth += closing ? -1 : 1
        if (depth === 0) closed = null
      } else if (CLOSED.has(name) && !closing) {
        closed = name
        depth = 1
        put(GAP)
      } else if (!INLINE.has(name)) put(GAP)
      i = end
      continue
    }
    let next = html.indexOf('<', i)
    if (next < 0) next = html.length
    if (!closed) {
      const at = length
      const own = html.slice(i, next)
      if (own.includes('&')) {
        const raw: number[] = []
        for (let k = i; k < next;) {
          const entity = html[k] === '&' ? ENTITY.exec(html.slice(k, k + 12)) : null
          const char = entity ? decode(entity[1]!) : html[k]!
          for (let c = 0; c < char.length; c++) raw.push(k)
          put(char)
          k += entity ? entity[0].length : 1
        }
        raw.push(next)
        segments.push({ at, from: i, length: length - at, raw })
      } else {
        put(own)
        segments.push({ at, from: i, length: own.length, raw: null })
      }
    }
    i = next
  }
  return { text: parts.join(''), segments }
}

/** Where a tag ends; signs within quoted attributes do not end it. */
function tagEnd(html: string, at: number): number {
  let quote = ''
  for (let i = at + 1; i < html.length; i++) {
    const c = html[i]!
    if (quote) {
      if (c === quote) quote = ''
    } else if (c === '"' || c === "'") quote = c
    else if (c === '>') return i + 1
  }
  return html.length
}

function decode(name: string): string {
  if (name[0] === '#') {
    const code =
      name[1]?.toLowerCase() === 'x' ? Number.parseInt(name.slice(2), 16) : Number.parseInt(name.slice(1), 10)
    return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : GAP
  }
  return NAMED[name.toLowerCase()] ?? GAP
}
