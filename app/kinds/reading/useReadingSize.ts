import type { Ref } from 'vue'

const LEAST_ZOOM = 0.6
const MOST_ZOOM = 3
const NARROW = 1000 // pixels of the window up to which there is no margin beside the text
const PAGE_WIDTH = { least: 280, most: 640 } // pixels, before zooming

/** How wide the pages of a reading are drawn, in pixels, after its column and the reader's zoom. */
export function useReadingSize(scroller: Ref<HTMLElement | null>, narrow: Ref<boolean>) {
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
  let sized: ResizeObserver | undefined
  onMounted(() => {
    measure() // before a page is gone to
    sized = new ResizeObserver(measure)
    if (scroller.value) sized.observe(scroller.value)
  })
  onBeforeUnmount(() => sized?.disconnect())
  return { zoom, zoomBy, width }
}
