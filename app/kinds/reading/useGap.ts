import { closeGap, openGap } from './gapInText'

/**
 * Running text that parts where something is written, and says so whenever its words have moved. What it holds may change,
 * as when terms are lit up in it; what comes while it is parted waits until it has closed again.
 */
export function useGap<T>(content: () => T, drawn: (root: HTMLElement) => void) {
  const root = ref<HTMLElement | null>(null)
  const shown = shallowRef(content())
  let gap: HTMLElement | null = null
  const emitDrawn = () => {
    if (root.value) drawn(root.value)
  }
  onMounted(emitDrawn)
  function renew() {
    const next = content()
    if (gap || shown.value === next) return
    shown.value = next
    void nextTick(emitDrawn)
  }
  watch(content, renew)
  function part(_y: number, range: Range | null): HTMLElement | null {
    close()
    if (!root.value || !range) return null
    gap = openGap(root.value, range)
    emitDrawn()
    return gap
  }
  function close() {
    if (!gap) return
    closeGap(gap)
    gap = null
    emitDrawn()
    void nextTick(renew)
  }
  return { root, shown, part, close }
}
