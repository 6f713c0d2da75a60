interface Caret {
  readonly node: Node
  readonly offset: number
}

/** The place between letters at a point of the screen, as each browser tells it. */
function caretAt(x: number, y: number): Caret | null {
  const doc = document as Document & {
    caretPositionFromPoint?: (x: number, y: number) => { offsetNode: Node; offset: number } | null
    caretRangeFromPoint?: (x: number, y: number) => Range | null
  }
  const position = doc.caretPositionFromPoint?.(x, y)
  if (position) return { node: position.offsetNode, offset: position.offset }
  const range = doc.caretRangeFromPoint?.(x, y)
  return range ? { node: range.startContainer, offset: range.startOffset } : null
}

/** Opens running text under the line on which a range ends, so that something can stand there and covers nothing. */
export function openGap(root: HTMLElement, range: Range): HTMLElement {
  const gap = document.createElement('span')
  gap.className = 'text-gap'
  gap.dataset.notText = ''
  const boxes = [...range.getClientRects()].filter(b => b.width > 0)
  const line = boxes.at(-1)
  const end = range.endContainer instanceof Element ? range.endContainer : range.endContainer.parentElement!
  const block = end.closest(
    'p, li, blockquote, h1, h2, h3, h4, td, th, dd, dt, pre, figcaption',
  ) as HTMLElement | null
  const edge =
    block && line
      ? caretAt(
          Math.min(block.getBoundingClientRect().right, window.innerWidth) - 3,
          line.top + line.height / 2,
        )
      : null
  if (edge && root.contains(edge.node) && edge.node instanceof Text && block!.contains(edge.node)) {
    const at = document.createRange()
    at.setStart(edge.node, edge.offset)
    at.insertNode(gap)
  } else if (block && root.contains(block)) block.append(gap)
  else root.append(gap)
  return gap
}

export function closeGap(gap: HTMLElement): void {
  const parent = gap.parentElement
  gap.remove()
  parent?.normalize()
}
export const caretAtPoint = caretAt
