/** Elements that stand on lines of their own: between them and what is around them there is white space to a reader. */
export const BLOCKS: ReadonlySet<string> = new Set([
  'address',
  'article',
  'aside',
  'blockquote',
  'br',
  'caption',
  'dd',
  'div',
  'dl',
  'dt',
  'figcaption',
  'figure',
  'footer',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'header',
  'hr',
  'img',
  'li',
  'main',
  'nav',
  'ol',
  'p',
  'pre',
  'section',
  'table',
  'tbody',
  'td',
  'tfoot',
  'th',
  'thead',
  'tr',
  'ul',
])

/**
 * The words of marked-up text in order, as both the server and the page read them: text as it stands, a
 * line where a block begins or ends.
 */
export class BlockText {
  private parts: string[] = []
  private at = 0
  /** @returns where it stands in the source */
  put(text: string): number {
    const at = this.at
    this.parts.push(text)
    this.at += text.length
    return at
  }
  edge(tag: string): void {
    if (BLOCKS.has(tag.toLowerCase())) this.put('\n')
  }
  get source(): string {
    return this.parts.join('')
  }
}
