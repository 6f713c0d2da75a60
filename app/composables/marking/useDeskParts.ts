export type DeskPart = 'steps' | 'record' | 'letter'

/** Parts of the desk, in the order one swipes through them on a narrow screen. */
export const DESK_PARTS: ReadonlyArray<{ readonly id: DeskPart; readonly name: string }> = [
  { id: 'steps', name: 'Steps' },
  { id: 'record', name: 'Record' },
  { id: 'letter', name: 'Letter' },
]
const FAR = 70 // pixels to the side that make a swipe
const FLAT = 0.5 // of that, what it may go up or down

/** Which part of the desk a narrow screen shows. A finger that swipes to the side goes to the next; one that chooses words does not. */
export function useDeskParts() {
  const part = ref<DeskPart>('record')
  let from: { readonly x: number; readonly y: number } | null = null
  function go(by: number) {
    const at = DESK_PARTS.findIndex(p => p.id === part.value)
    const next = DESK_PARTS[at + by]
    if (!next) return
    part.value = next.id
  }
  function onStart(event: TouchEvent) {
    const touch = event.touches.length === 1 ? event.touches[0]! : null
    const isOnOwn =
      event.target instanceof Element && event.target.closest('[contenteditable], textarea, input')
    from = touch && !isOnOwn ? { x: touch.clientX, y: touch.clientY } : null
  }
  function onEnd(event: TouchEvent) {
    const touch = event.changedTouches[0]
    if (!from || !touch || getSelection()?.isCollapsed === false) return
    const [dx, dy] = [touch.clientX - from.x, touch.clientY - from.y]
    from = null
    if (Math.abs(dx) < FAR || Math.abs(dy) > Math.abs(dx) * FLAT) return
    const isRtl = getComputedStyle(document.documentElement).direction === 'rtl'
    go(dx < 0 === !isRtl ? 1 : -1)
  }
  // the part one goes to begins at its beginning, under the head that stays
  watch(part, async () => {
    await nextTick()
    const parts = document.getElementById('record')
    if (parts && parts.getBoundingClientRect().top < 0) parts.scrollIntoView()
  })
  return { part, swipe: { touchstart: onStart, touchend: onEnd } }
}
