import type RowPlace from '~/kinds/reading/RowPlace.vue'
import { caretAtPoint } from './gapInText'
import type { PartText } from './partText'

type Place = InstanceType<typeof RowPlace>
/** Where somebody reads: a page, and what of it is at the line of sight. */
interface Sight {
  readonly part: number
  readonly share: number // of the height of the page that lies above
  readonly pixels: number // of the page that lie above
  readonly offset: number | null // in the whole text, where its words could be asked
}

const LINE_OF_SIGHT = 90 // pixels below the upper edge
const IN_WORDS = 60 // pixels from the left edge of a text to where there are words

/**
 * What scrolls a text: its own column, or on a narrow window the page. Where one reads stays there when widths change, by
 * zooming, by turning a phone, by a window that is made smaller.
 *
 * @param drawn the words of the pages that are drawn
 */
export function useReadingScroll(drawn: ReadonlyMap<number, PartText>) {
  const places = new Map<number, Place>() // of every page
  const keepPlace = (n: number, place: unknown) => {
    if (place)
      places.set(n, place as Place) // what a ref function is given
    else places.delete(n)
  }
  const scroller = ref<HTMLElement | null>(null)
  const narrow = ref(false) // no room for a margin: the page scrolls
  const here = ref(1) // the page that is being read
  let sight: Sight | null = null

  /** The edges between which the text is seen, in pixels of the window. */
  function edges(): { readonly top: number; readonly bottom: number } {
    const column = scroller.value
    if (!column) return { top: 0, bottom: window.innerHeight }
    if (!narrow.value) return column.getBoundingClientRect()
    const strip = column.previousElementSibling // sticks above the text
    return { top: Math.max(0, strip?.getBoundingClientRect().bottom ?? 0), bottom: window.innerHeight }
  }
  const scrollBy = (top: number, behavior: ScrollBehavior = 'auto') =>
    (narrow.value ? window : scroller.value)?.scrollBy({ top, behavior })

  function look() {
    const y = edges().top + LINE_OF_SIGHT
    for (const [n, { row }] of places) {
      const box = row?.getBoundingClientRect()
      if (!row || !box || box.top > y || box.bottom <= y) continue
      here.value = n
      const pixels = y - box.top
      sight = { part: n, share: pixels / box.height, pixels, offset: offsetAt(n, y) }
      return
    }
  }
  function offsetAt(part: number, y: number): number | null {
    const words = drawn.get(part)
    if (!words) return null
    const caret = caretAtPoint(words.root.getBoundingClientRect().left + IN_WORDS, y)
    return caret && words.root.contains(caret.node) ? words.offsetOf(caret.node, caret.offset) : null
  }
  /** Brings what was at the line of sight there again. @param scale how much wider pages of a paper are drawn now */
  function restore(scale: number) {
    if (!sight) return
    const { part, share, pixels, offset } = sight
    if (part === 1 && pixels <= LINE_OF_SIGHT + 1) return // at the very beginning
    const box = places.get(part)?.row?.getBoundingClientRect()
    if (!box) return
    const line = offset !== null && scale === 1 ? drawn.get(part)?.lines(offset, offset + 1)[0] : undefined
    const byHeight = box.top + (scale === 1 ? share * box.height : pixels * scale)
    scrollBy((line?.top ?? byHeight) - edges().top - LINE_OF_SIGHT)
  }

  let frame = 0
  const scrolled = () => {
    cancelAnimationFrame(frame)
    frame = requestAnimationFrame(look)
  }
  const windowScrolled = () => {
    if (narrow.value) scrolled()
  }
  onMounted(() => window.addEventListener('scroll', windowScrolled, { passive: true }))
  onBeforeUnmount(() => {
    cancelAnimationFrame(frame)
    window.removeEventListener('scroll', windowScrolled)
  })
  return { places, keepPlace, scroller, narrow, here, edges, scrollBy, scrolled, restore }
}
