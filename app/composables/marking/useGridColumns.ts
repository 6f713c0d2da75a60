import { useVirtualizer } from '@tanstack/vue-virtual'
import { useKeptChoice } from '../shell/useKeptChoice'

/** Widths of a column in pixels, by what one chooses. */
export const COLUMN_WIDTHS = { narrow: 64, usual: 84, wide: 132 } as const
export type ColumnWidth = keyof typeof COLUMN_WIDTHS
const isWidth = (kept: unknown): kept is ColumnWidth => typeof kept === 'string' && kept in COLUMN_WIDTHS
const isFlag = (kept: unknown): kept is boolean => typeof kept === 'boolean'
export const useColumnWidth = () => useKeptChoice<ColumnWidth>('grade_columns', 'usual', isWidth)
export const useFoldedPanel = () => useKeptChoice('grade_panel_folded', false, isFlag)

const BEFORE = 276 // pixels of the name and the final mark, before the first column
const MANY = 40 // columns from which on only those in sight are drawn

/** The columns of a gradebook: how wide they are, which are drawn, and how many are out of sight to the right. */
export function useGridColumns(scroller: Ref<HTMLElement | null>, columns: () => readonly number[]) {
  const chosen = useColumnWidth()
  const width = computed(() => COLUMN_WIDTHS[chosen.value])
  const isVirtual = computed(() => columns().length > MANY)
  const virtual = useVirtualizer(
    computed(() => ({
      horizontal: true,
      count: isVirtual.value ? columns().length : 0,
      getScrollElement: () => scroller.value,
      estimateSize: () => width.value,
      overscan: 4,
      scrollMargin: BEFORE,
      initialRect: { width: 900, height: 620 },
    })),
  )
  /** Columns to be drawn, each with its place among those shown. */
  const drawn = computed(() =>
    isVirtual.value
      ? virtual.value.getVirtualItems().map(v => ({ column: columns()[v.index]!, place: v.index }))
      : columns().map((column, place) => ({ column, place })),
  )
  watch(width, () => virtual.value.measure())

  const seenTo = ref(0) // the right edge of what is in sight, in pixels of the grid
  const look = () => {
    if (scroller.value) seenTo.value = scroller.value.scrollLeft + scroller.value.clientWidth
  }
  const sizes = import.meta.client ? new ResizeObserver(look) : null
  onMounted(() => {
    if (!scroller.value) return
    scroller.value.addEventListener('scroll', look, { passive: true })
    sizes?.observe(scroller.value)
  })
  onBeforeUnmount(() => sizes?.disconnect())
  /** How many columns are out of sight to the right. */
  const more = computed(() => {
    if (seenTo.value === 0) return 0
    const inSight = Math.floor((seenTo.value - BEFORE + 1) / width.value)
    return Math.max(0, columns().length - Math.max(0, inSight))
  })
  return {
    template: computed(() => `200px 76px repeat(${columns().length}, ${width.value}px)`),
    drawn,
    more,
    /** Goes on to the right by what is in sight. */
    showMore: () =>
      scroller.value?.scrollBy({
        left: Math.max(width.value, scroller.value.clientWidth - BEFORE - width.value),
      }),
    /** Brings a column into sight, so that it is drawn. */
    show: (column: number) => {
      if (isVirtual.value) virtual.value.scrollToIndex(columns().indexOf(column))
    },
  }
}
