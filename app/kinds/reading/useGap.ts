import { closeGap, openGap } from './gapInText'

/** Running text that parts where something is written, and says so whenever its words have moved. `closed` hears when it is whole again. */
export function useGap(drawn: (root: HTMLElement) => void, closed: () => void = () => {}) {
  const root = ref<HTMLElement | null>(null)
  let gap: HTMLElement | null = null
  const emitDrawn = () => {
    if (root.value) drawn(root.value)
  }
  onMounted(emitDrawn)
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
    void nextTick(() => {
      if (!gap) closed()
    })
  }
  return { root, part, close, emitDrawn, isOpen: () => gap !== null }
}
