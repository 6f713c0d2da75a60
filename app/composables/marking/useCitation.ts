import type { CitationView } from '#shared/marking/desk'

/**
 * The words chosen with pointer or keyboard in the record, as a citation: exact words and their place in the
 * contribution's plain text. Numbers of other citations inside do not count as text; a hidden name counts as the name it
 * stands for, and is chosen whole. Null when nothing useful is chosen.
 */
export function chosenPassage(): Omit<CitationView, 'criterionId'> | null {
  const selection = window.getSelection()
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return null
  const range = selection.getRangeAt(0)
  const article =
    closest(range.commonAncestorContainer, '[data-contribution]') ??
    closest(range.startContainer, '[data-contribution]')
  if (!article) return null
  let offset = 0
  let start: number | null = null
  let end: number | null = null
  let text = ''
  for (const line of article.querySelectorAll('[data-line]')) {
    const walker = document.createTreeWalker(line, NodeFilter.SHOW_TEXT, node =>
      node.parentElement?.closest('[data-skip]') ? NodeFilter.FILTER_REJECT : NodeFilter.FILTER_ACCEPT,
    )
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const shown = node.textContent!
      const said = node.parentElement?.dataset.name ?? shown
      if (range.intersectsNode(node)) {
        const from = node === range.startContainer ? range.startOffset : 0
        const to = node === range.endContainer ? range.endOffset : shown.length
        if (to > from) {
          start ??= offset + (said === shown ? from : 0)
          end = offset + (said === shown ? to : said.length)
        }
      }
      text += said
      offset += said.length
    }
    text += '\n'
    offset += 1
  }
  if (start === null || end === null) return null
  const raw = text.slice(start, end)
  const exact = raw.trim()
  if (exact.length < 3) return null
  return {
    contributionId: (article as HTMLElement).dataset.contribution!,
    exact,
    start: start + raw.indexOf(exact),
  }
}

const closest = (node: Node, selector: string): Element | null =>
  (node instanceof Element ? node : node.parentElement)?.closest(selector) ?? null
