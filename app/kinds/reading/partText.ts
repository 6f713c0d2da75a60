import { BlockText, BLOCKS } from '#core/kinds/reading/blockText'
import { readableText } from '#core/kinds/reading/readableText'

/** Inside a text what is not of it: a note being written between its lines. */
export const NOT_TEXT = '[data-not-text]'

interface Piece {
  readonly node: Text
  readonly at: number
  readonly length: number
}

/**
 * The words of one part as they stand on the page, and the way between them and their places in the text. Built from what
 * is drawn, by the rule the server reads by, so that the same words have the same place at every zoom and in every browser.
 *
 * @param start the part's place in the whole text
 */
export class PartText {
  readonly text: string
  private readonly toSource: Int32Array
  private readonly pieces: Piece[] = []

  constructor(
    readonly root: Element,
    readonly start: number,
  ) {
    const source = new BlockText()
    const visit = (node: Node) => {
      if (node instanceof Text) {
        this.pieces.push({ node, at: source.put(node.data), length: node.data.length })
        return
      }
      if (!(node instanceof Element) || node.matches(NOT_TEXT)) return
      const isBlock = BLOCKS.has(node.localName)
      if (isBlock) source.edge(node.localName)
      node.childNodes.forEach(visit)
      if (isBlock) source.edge(node.localName)
    }
    root.childNodes.forEach(visit)
    const { text, toSource } = readableText(source.source)
    this.text = text
    this.toSource = toSource
  }

  get end(): number {
    return this.start + this.text.length
  }

  /** What lies between two places of the text, as far as it is in this part. */
  range(from: number, to: number): Range | null {
    const [a, b] = [Math.max(0, from - this.start), Math.min(this.text.length, to - this.start)]
    if (b <= a) return null
    const first = this.pointAt(this.toSource[a]!, false)
    const last = this.pointAt(this.toSource[b - 1]!, true)
    if (!first || !last) return null
    const range = document.createRange()
    range.setStart(first.node, first.offset)
    // a letter may be more than one sign long where it is written with its accents, or drawn as one with its neighbour
    const next = this.toSource[b]!
    const within = this.pieces.find(p => p.node === last.node)!
    range.setEnd(
      last.node,
      Math.min(
        last.node.length,
        Math.max(
          last.offset + 1,
          next > within.at && next <= within.at + within.length ? next - within.at : last.offset + 1,
        ),
      ),
    )
    return range
  }

  /** Boxes of what lies between two places, one a line, as they stand on the screen. */
  lines(from: number, to: number): DOMRect[] {
    const range = this.range(from, to)
    if (!range) return []
    const lines: DOMRect[] = []
    for (const box of range.getClientRects()) {
      if (box.width < 0.5 || box.height < 2) continue
      const last = lines.at(-1)
      if (
        last &&
        Math.abs(last.bottom - box.bottom) < Math.min(last.height, box.height) * 0.55 &&
        box.left >= last.left - 2
      ) {
        const left = Math.min(last.left, box.left)
        const top = Math.min(last.top, box.top)
        lines[lines.length - 1] = new DOMRect(
          left,
          top,
          Math.max(last.right, box.right) - left,
          Math.max(last.bottom, box.bottom) - top,
        )
      } else lines.push(box)
    }
    return lines
  }

  /** The place in the text of a point of the page; points beside the words count to the nearest. */
  offsetOf(node: Node, offset: number): number {
    const source = this.sourceOf(node, offset)
    let [low, high] = [0, this.text.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (this.toSource[middle]! < source) low = middle + 1
      else high = middle
    }
    return this.start + low
  }

  private sourceOf(node: Node, offset: number): number {
    const piece = this.pieces.find(p => p.node === node)
    if (piece) return piece.at + Math.min(offset, piece.length)
    // a point between elements: where the next text begins
    const point = document.createRange()
    point.setStart(node, Math.min(offset, node.childNodes.length || (node.textContent ?? '').length))
    const next = this.pieces.find(p => point.comparePoint(p.node, 0) >= 0)
    const last = this.pieces.at(-1)
    if (next) return next.at
    if (last) return last.at + last.length
    return 0
  }

  private pointAt(source: number, inside: boolean): { readonly node: Text; readonly offset: number } | null {
    let [low, high] = [0, this.pieces.length - 1]
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if (this.pieces[middle]!.at <= source) low = middle
      else high = middle - 1
    }
    const piece = this.pieces[low]
    if (!piece) return null
    return {
      node: piece.node,
      offset: Math.min(Math.max(0, inside ? piece.length - 1 : piece.length), source - piece.at),
    }
  }
}
