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
const HELD = 20 // frames
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
  let framesHeld = 0
  let holding = 0

  /** The edges between which the text is seen, in pixels of the window. */
  function edges(): { readonly top: number; readonly bottom: number } {
    const column = scroller.value
    if (!column) return { top: 0, bottom: window.innerHeight }
    if (!narrow.value) return column.getBoundingClientRect()
    const strip = column.previousElementSibling // sticks above the text
    return { top: Math.max(0, strip?.getBoundingClientRect().bottom ?? 0), bottom: window.innerHeight }
  }
  const scrollBy = (top: number, behavior: ScrollBehavior = 'auto') =>
    (narrow.value ? frameOf(scroller.value) : scroller.value)?.scrollBy({ top, behavior })

  function look() {
    if (framesHeld > 0) return
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
  /**
   * Brings what was at the line of sight there again, and holds it there while pages above it are laid out anew.
   * @param scale of a paper, how much larger its pages are than they were; null where words are laid anew
   */
  function restore(scale: number | null) {
    if (!sight || (sight.part === 1 && sight.pixels <= LINE_OF_SIGHT + 1)) return // at the very beginning
    sight = { ...sight, pixels: sight.pixels * (scale ?? 1) }
    const isHeld = framesHeld > 0
    framesHeld = HELD
    if (!isHeld) hold(scale === null)
  }
  function hold(isLaidAnew: boolean) {
    bringBack(isLaidAnew)
    framesHeld--
    if (framesHeld > 0) holding = requestAnimationFrame(() => hold(isLaidAnew))
  }
  function bringBack(isLaidAnew: boolean) {
    const box = sight && places.get(sight.part)?.row?.getBoundingClientRect()
    if (!sight || !box) return
    const { part, share, pixels, offset } = sight
    const line = isLaidAnew && offset !== null ? drawn.get(part)?.lines(offset, offset + 1)[0] : undefined
    const top = line?.top ?? box.top + (isLaidAnew ? share * box.height : pixels)
    const by = top - edges().top - LINE_OF_SIGHT
    if (Math.abs(by) > 1) scrollBy(by)
  }
  /** Whoever scrolls goes where they like. */
  const letGo = () => {
    framesHeld = 0
    cancelAnimationFrame(holding)
  }

  let frame = 0
  const scrolled = () => {
    cancelAnimationFrame(frame)
    frame = requestAnimationFrame(look)
  }
  // whatever scrolls: scrolling does not bubble
  const anyScrolled = () => {
    if (narrow.value) scrolled()
  }
  const LISTENING = { passive: true, capture: true }
  const BY_HAND = ['wheel', 'touchmove', 'keydown', 'pointerdown'] as const
  onMounted(() => {
    document.addEventListener('scroll', anyScrolled, LISTENING)
    for (const act of BY_HAND) document.addEventListener(act, letGo, LISTENING)
  })
  onBeforeUnmount(() => {
    cancelAnimationFrame(frame)
    letGo()
    for (const act of BY_HAND) document.removeEventListener(act, letGo, LISTENING)
    document.removeEventListener('scroll', anyScrolled, LISTENING)
  })
  return { places, keepPlace, scroller, narrow, here, edges, scrollBy, scrolled, restore }
}

/** What an element scrolls with: the nearest around it that does. */
function frameOf(element: HTMLElement | null): Element | null {
  for (let at = element?.parentElement; at; at = at.parentElement)
    if (at.scrollHeight > at.clientHeight && /auto|scroll/.test(getComputedStyle(at).overflowY)) return at
  return document.scrollingElement
}
