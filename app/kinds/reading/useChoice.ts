import { CONTEXT } from '#core/kinds/reading/anchor'
import { BETWEEN_PARTS, type PageArea } from '#core/kinds/reading/reading'
import { sentenceSegments } from '#core/language/segments'
import type { NoteDetail } from '#shared/kinds/reading/reading'
import { NOT_TEXT, type PartText } from './partText'

type Passage = NonNullable<NoteDetail['passage']>
/** Words somebody has chosen, with the page on which their choice ends: there the text parts. */
export interface Choice {
  readonly passage: Passage | null
  readonly area: PageArea | null
  readonly part: number
  readonly endPart: number
}
const LONGEST = 4000 // characters

/** Choosing words in a text that is drawn page by page: by pointer, by touch, or by keys sentence by sentence. */
export function useChoice() {
  const drawn = shallowReactive(new Map<number, PartText>()) // what is on the page now
  const setWords = (part: number, words: PartText | null) => {
    if (words) drawn.set(part, words)
    else drawn.delete(part)
  }
  const inOrder = () => [...drawn].sort(([a], [b]) => a - b)

  /** What is chosen in the browser, in places of the text; null where it is nothing of it. */
  function chosenNow(): { readonly start: number; readonly end: number } | null {
    const selection = getSelection()
    if (!selection || selection.isCollapsed || selection.rangeCount === 0) return null
    const range = selection.getRangeAt(0)
    const element = (node: Node) => (node instanceof Element ? node : node.parentElement)
    if (element(range.startContainer)?.closest(NOT_TEXT) && element(range.endContainer)?.closest(NOT_TEXT))
      return null
    const over = inOrder().filter(([, w]) => range.intersectsNode(w.root))
    const [first, last] = [over[0]?.[1], over.at(-1)?.[1]]
    if (!first || !last) return null
    const start = first.root.contains(range.startContainer)
      ? first.offsetOf(range.startContainer, range.startOffset)
      : first.start
    const end = last.root.contains(range.endContainer)
      ? last.offsetOf(range.endContainer, range.endOffset)
      : last.end
    return end > start ? { start, end } : null
  }

  /** The text between two places, as far as it is drawn. */
  function textBetween(start: number, end: number): string {
    return inOrder()
      .filter(([, w]) => w.start < end && w.end > start)
      .map(([, w]) => w.text.slice(Math.max(0, start - w.start), Math.max(0, end - w.start)))
      .join(BETWEEN_PARTS)
  }

  /** A passage as it is kept, without white space at its ends; null if there is nothing in it. */
  function toChoice(start: number, end: number): Choice | null {
    const raw = textBetween(start, end).slice(0, LONGEST)
    const exact = raw.trim()
    if (exact === '') return null
    const from = start + raw.indexOf(exact)
    const to = from + exact.length
    const parts = inOrder().filter(([, w]) => w.start < to && w.end > from)
    if (parts.length === 0) return null
    return {
      passage: {
        exact,
        prefix: textBetween(Math.max(0, from - CONTEXT), from).slice(-CONTEXT),
        suffix: textBetween(to, to + CONTEXT).slice(0, CONTEXT),
        start: from,
        end: to,
      },
      area: null,
      part: parts[0]![0],
      endPart: parts.at(-1)![0],
    }
  }

  /** The sentence after a place, or before it, on the pages that are drawn. */
  function sentence(at: number, by: 1 | -1): Choice | null {
    const all = inOrder()
      .flatMap(([, w]) =>
        [...sentenceSegments(w.text)].map(s => ({
          start: w.start + s.index,
          end: w.start + s.index + s.segment.trimEnd().length,
        })),
      )
      .filter(s => s.end > s.start)
    const found = by > 0 ? all.find(s => s.start >= at) : all.findLast(s => s.end <= at)
    return found ? toChoice(found.start, found.end) : null
  }
  /** One word more at its end, or one less. */
  function stretched(choice: Choice, by: 1 | -1): Choice | null {
    if (!choice.passage) return null
    const { start, end } = choice.passage
    const after = textBetween(end, end + 200)
    const inside = textBetween(start, end)
    const to =
      by > 0
        ? end + (/^\s*\S+/.exec(after)?.[0].length ?? 0)
        : start + inside.replace(/\s*\S+\s*$/, '').length
    return to > start ? toChoice(start, to) : choice
  }
  return { drawn, setWords, chosenNow, toChoice, sentence, stretched }
}
