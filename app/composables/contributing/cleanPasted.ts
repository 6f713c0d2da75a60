/**
 * What a word processor puts on the clipboard, before the editor reads it: comments, conditional sections, style sheets
 * and office markup go; what is meant by styles (bold, raised, struck through …) becomes elements, paragraphs with typed
 * bullets and numbers become lists, and headings begin at the highest level there is. The editor's own schema then keeps
 * only what it knows.
 */
export function cleanPasted(html: string): string {
  const { body } = new DOMParser().parseFromString(withoutOffice(html), 'text/html')
  for (const bold of body.querySelectorAll<HTMLElement>('b[style*="font-weight"]'))
    if (/font-weight:\s*(normal|400)/.test(bold.getAttribute('style') ?? '')) unwrap(bold)
  for (const span of body.querySelectorAll<HTMLElement>('span, font')) meant(span)
  for (const picture of body.querySelectorAll('img'))
    if (!OUR_PICTURE.test(picture.getAttribute('src') ?? '')) picture.remove()
  gatherLists(body)
  lowerHeadings(body)
  for (const element of body.querySelectorAll('*')) {
    for (const { name } of [...element.attributes]) if (!KEPT.has(name)) element.removeAttribute(name)
    if (element.matches('p') && !element.textContent?.trim() && !element.querySelector('img, br'))
      element.remove()
  }
  return body.innerHTML.replace(/&nbsp;|\u00a0/g, ' ')
}

/** Pictures from elsewhere are not fetched: they are added as files. */
const OUR_PICTURE = /^\/api\/files\/[0-9a-f-]{36}$/

/** Attributes that mean something: everything else is how it looked, or what it did. */
const KEPT: ReadonlySet<string> = new Set(['href', 'src', 'alt', 'data-page'])

const withoutOffice = (html: string): string =>
  html
    .replace(/<!--[\s\S]*?-->/g, '')
    .replace(/<!\[[^\]]*\]>/g, '')
    .replace(/<(style|script|xml|title|meta|o:p|w:[a-z]+)\b[^>]*>[\s\S]*?<\/\1>/gi, '')
    .replace(/<\/?(meta|link|o:[a-z]+|w:[a-z]+|v:[a-z]+|st1:[a-z]+)\b[^>]*>/gi, '')

const unwrap = (element: Element) => element.replaceWith(...element.childNodes)

const MEANT: ReadonlyArray<readonly [RegExp, string]> = [
  [/font-weight:\s*(bold|[6-9]00)/, 'strong'],
  [/font-style:\s*italic/, 'em'],
  [/vertical-align:\s*super/, 'sup'],
  [/vertical-align:\s*sub/, 'sub'],
  [/text-decoration[a-z-]*:[^;]*line-through/, 's'],
]
/** What a style says becomes elements; the marker of a list stays until the lists are gathered. */
function meant(span: HTMLElement) {
  const style = (span.getAttribute('style') ?? '').toLowerCase()
  if (style.includes('mso-list')) return
  const around = MEANT.filter(([pattern]) => pattern.test(style)).map(([, tag]) => tag)
  if (around.length === 0 || !span.textContent?.trim()) return unwrap(span)
  const outer = span.ownerDocument.createElement(around[0]!)
  const inner = around
    .slice(1)
    .reduce((at, tag) => at.appendChild(span.ownerDocument.createElement(tag)), outer)
  inner.append(...span.childNodes)
  span.replaceWith(outer)
}

const BULLET = /^[\s\u00a0]*[·•o§▪–-][\s\u00a0]+/
/** What begins no sentence. */
const SIGN = /^[\s\u00a0]*[·•▪][\s\u00a0]+/
const NUMBER = /^[\s\u00a0]*\(?(\d{1,3}|[a-z]{1,4})[.)][\s\u00a0]+/i
interface ListLine {
  readonly level: number
  readonly tag: 'ul' | 'ol'
}

/** What kind of a line of a list a paragraph is, and at which level; its typed marker is taken off. Null: none. */
function listLine(paragraph: Element): ListLine | null {
  const style = paragraph.getAttribute('style') ?? ''
  const isListed = /mso-list:\s*l\d/.test(style) || /^MsoListParagraph/.test(paragraph.className)
  const marker = [...paragraph.querySelectorAll('span')].find(s =>
    /mso-list/.test(s.getAttribute('style') ?? ''),
  )
  const typed = marker?.textContent ?? paragraph.textContent ?? ''
  if (!isListed && !SIGN.test(typed)) return null
  if (!marker && !BULLET.test(typed) && !NUMBER.test(typed)) return null
  const tag = NUMBER.test(`${typed.trimEnd()} `) ? 'ol' : 'ul'
  if (marker) marker.remove()
  else takeOff(paragraph, (tag === 'ol' ? NUMBER : BULLET).exec(typed)?.[0].length ?? 0)
  return { level: Number(/level(\d)/.exec(style)?.[1] ?? 1), tag }
}

/** Removes so many letters from the beginning of an element. */
function takeOff(element: Element, letters: number) {
  let left = letters
  const texts = element.ownerDocument.createTreeWalker(element, NodeFilter.SHOW_TEXT)
  for (let text = texts.nextNode(); text && left > 0; text = texts.nextNode()) {
    const cut = Math.min(left, text.nodeValue!.length)
    text.nodeValue = text.nodeValue!.slice(cut)
    left -= cut
  }
}

/** Paragraphs that follow each other with markers become lists, one in another by their levels. */
function gatherLists(body: HTMLElement) {
  let open: Array<{ readonly list: Element; readonly line: ListLine }> = []
  for (const paragraph of [...body.querySelectorAll('p')]) {
    const before = paragraph.previousElementSibling
    const line = listLine(paragraph)
    if (!line) {
      open = []
      continue
    }
    if (open[0] && before !== open[0].list) open = []
    const item = paragraph.ownerDocument.createElement('li')
    while (open.length > 0 && open.at(-1)!.line.level > line.level) open.pop()
    const last = open.at(-1)
    if (last?.line.level === line.level && (open.length > 1 || last.line.tag === line.tag)) {
      last.list.append(item)
      paragraph.remove()
    } else {
      const list = paragraph.ownerDocument.createElement(line.tag)
      list.append(item)
      const under = last && last.line.level < line.level ? last.list.lastElementChild : null
      if (under) {
        under.append(list)
        paragraph.remove()
      } else {
        paragraph.replaceWith(list)
        open = []
      }
      open.push({ list, line })
    }
    const words = paragraph.ownerDocument.createElement('p')
    words.append(...paragraph.childNodes)
    item.append(words)
  }
}

/** The highest headings of what is pasted become ours, those below them the smaller ones. */
function lowerHeadings(body: HTMLElement) {
  const all = [...body.querySelectorAll('h1, h2, h3, h4, h5, h6')]
  const highest = Math.min(...all.map(h => Number(h.tagName[1])))
  for (const heading of all) {
    const own = heading.ownerDocument.createElement(Number(heading.tagName[1]) === highest ? 'h3' : 'h4')
    own.append(...heading.childNodes)
    heading.replaceWith(own)
  }
}
