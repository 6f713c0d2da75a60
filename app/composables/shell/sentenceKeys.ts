import { sentenceSegments } from '#core/language/segments'
import type { Key } from './keyList'

/** Told to a text, bubbling, when words in it were chosen by keys: as a pointer's release tells it. */
export const CHOOSE = 'choose'
interface Sentence {
  readonly block: HTMLElement
  readonly start: number // in the block's text
  readonly end: number
}

/**
 * Keys that choose words of what one reads, with the browser's own selection: sentence by sentence, from where the
 * keyboard is, and one word more or less at the end.
 *
 * @param blocks paragraphs in the order of the page; what stands in `[data-skip]` is no text of theirs
 */
export function sentenceKeys(blocks: () => readonly HTMLElement[]): Key[] {
  return [
    { keys: '.', does: 'choose the next sentence', run: () => step(blocks(), 1) },
    { keys: ',', does: 'choose the sentence before', run: () => step(blocks(), -1) },
    { keys: '>', does: 'one word more', run: () => stretch(blocks(), 1) },
    { keys: '<', does: 'one word less', run: () => stretch(blocks(), -1) },
  ]
}

function step(blocks: readonly HTMLElement[], by: 1 | -1) {
  const all = blocks.flatMap(sentencesOf)
  if (all.length === 0) return
  const here = chosenIn(blocks)
  const at = here
    ? all.findIndex(s => s.block === here.block && s.start <= here.start && s.end > here.start) + by
    : beginning(all)
  const next = all[Math.min(all.length - 1, Math.max(0, at))]!
  choose(next.block, next.start, next.end)
}

/** Of the part that has the keyboard the first sentence, else the first that is seen. */
function beginning(all: readonly Sentence[]): number {
  const focused = document.activeElement
  const inside = focused && focused !== document.body ? all.findIndex(s => focused.contains(s.block)) : -1
  if (inside > 0) return inside
  const seen = all.findIndex(s => s.block.getBoundingClientRect().bottom > window.innerHeight * TOP)
  return Math.max(0, seen)
}
const TOP = 0.15 // of the window: what is above it lies under heads that stay

function stretch(blocks: readonly HTMLElement[], by: 1 | -1) {
  const here = chosenIn(blocks)
  if (!here) return step(blocks, 1)
  const text = textOf(here.block)
  const end =
    by > 0
      ? here.end + (/^\s*\S+/.exec(text.slice(here.end))?.[0].length ?? 0)
      : here.start + text.slice(here.start, here.end).replace(/\s*\S+\s*$/, '').length
  if (end > here.start) choose(here.block, here.start, end)
}

function sentencesOf(block: HTMLElement): Sentence[] {
  return [...sentenceSegments(textOf(block))]
    .map(s => ({ block, start: s.index, end: s.index + s.segment.trimEnd().length }))
    .filter(s => s.end > s.start)
}

function nodesOf(block: HTMLElement): Text[] {
  const walker = document.createTreeWalker(block, NodeFilter.SHOW_TEXT, node =>
    node.parentElement?.closest('[data-skip]') ? NodeFilter.FILTER_REJECT : NodeFilter.FILTER_ACCEPT,
  )
  const nodes: Text[] = []
  for (let node = walker.nextNode(); node; node = walker.nextNode()) nodes.push(node as Text) // SHOW_TEXT
  return nodes
}
const textOf = (block: HTMLElement): string =>
  nodesOf(block)
    .map(n => n.data)
    .join('')

/** What is chosen now, if it begins and ends in one of the blocks. */
function chosenIn(blocks: readonly HTMLElement[]): Sentence | null {
  const selection = getSelection()
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return null
  const range = selection.getRangeAt(0)
  const block = blocks.find(b => b.contains(range.startContainer))
  if (!block) return null
  const start = placeOf(block, range.startContainer, range.startOffset)
  const ends = block.contains(range.endContainer)
  return { block, start, end: ends ? placeOf(block, range.endContainer, range.endOffset) : start }
}
function placeOf(block: HTMLElement, container: Node, offset: number): number {
  let at = 0
  for (const node of nodesOf(block)) {
    if (node === container) return at + offset
    at += node.length
  }
  return 0
}

function choose(block: HTMLElement, start: number, end: number) {
  const range = document.createRange()
  let at = 0
  for (const node of nodesOf(block)) {
    if (start >= at && start < at + node.length) range.setStart(node, start - at)
    if (end > at && end <= at + node.length) range.setEnd(node, end - at)
    at += node.length
  }
  const selection = getSelection()!
  selection.removeAllRanges()
  selection.addRange(range)
  const reduced = matchMedia('(prefers-reduced-motion: reduce)').matches
  const box = range.getBoundingClientRect()
  if (box.top < window.innerHeight * TOP || box.bottom > window.innerHeight)
    block.scrollIntoView({ block: 'center', behavior: reduced ? 'auto' : 'smooth' })
  block.dispatchEvent(new CustomEvent(CHOOSE, { bubbles: true }))
}
