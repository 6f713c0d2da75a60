import type { Ref } from 'vue'
import type { PartView } from '#shared/kinds/reading/reading'

const LEAST_ZOOM = 0.6
const MOST_ZOOM = 3
const NARROW = 1000 // pixels of the window up to which there is no margin beside the text
export const USUAL_ASPECT = 1.4 // height over width of a page that does not say
export const BELOW_PAPER = 14 // pixels of the sheet's lower edge
const PAGE_WIDTH = { least: 280, most: 640 } // pixels, before zooming

/**
 * How wide the pages of a reading are drawn, in pixels, after its column and the reader's zoom.
 *
 * @param resized told how much wider pages are than they were, once they stand there
 */
export function useReadingSize(
  scroller: Ref<HTMLElement | null>,
  narrow: Ref<boolean>,
  resized: (scale: number) => void,
) {
  const zoom = ref(1)
  const column = ref(690)
  const zoomBy = (factor: number) => {
    zoom.value = Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, zoom.value * factor))
  }
  const width = computed(() => {
    const fitting = Math.min(Math.max(PAGE_WIDTH.least, column.value), PAGE_WIDTH.most)
    return Math.round(fitting * zoom.value)
  })
  function measure() {
    narrow.value = window.innerWidth <= NARROW
    const strip = scroller.value?.previousElementSibling // sticks above the text where there is no margin
    scroller.value?.style.setProperty('--above', `${strip?.clientHeight ?? 0}px`)
    const text = scroller.value?.querySelector<HTMLElement>('.text')
    if (!text) return
    column.value = text.clientWidth - 2 * Number.parseFloat(getComputedStyle(text).paddingLeft || '0')
  }
  watch([width, column, narrow], ([now], [before]) => resized(now / before), { flush: 'post' })
  let sized: ResizeObserver | undefined
  onMounted(() => {
    measure() // before a page is gone to
    sized = new ResizeObserver(measure)
    if (scroller.value) sized.observe(scroller.value)
  })
  onBeforeUnmount(() => sized?.disconnect())
  /** How high the text of a part will be, in pixels. */
  function heightOf(form: string, { aspect, words }: PartView): number {
    if (form === 'paper') return width.value * (aspect ?? USUAL_ASPECT) + BELOW_PAPER
    return Math.max(80, (words * 2.6 * 620) / Math.max(320, width.value))
  }
  return { zoom, zoomBy, width, heightOf }
}
