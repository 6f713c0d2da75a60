/**
 * Brings today into view on a plan that is larger than its window: across, the line of today; down, the first bar
 * that it crosses. Nothing moves where both are in view.
 */
export function showToday(scroll: HTMLElement): void {
  const line = scroll.querySelector('.today')
  if (!line) return
  const view = scroll.getBoundingClientRect()
  const today = line.getBoundingClientRect().left - view.left
  if (today < 0 || today > view.width - 40) scroll.scrollLeft += today - view.width / 3
  const crossed = [...scroll.querySelectorAll('.bar')]
    .map(bar => bar.getBoundingClientRect())
    .filter(box => box.left - view.left <= today && box.right - view.left >= today)
  const first = crossed[0]
  if (!first || first.top - view.top < view.height * HIGH) return
  scroll.scrollTop += first.top - view.top - HEADING
}
const HIGH = 0.5 // of the window: a bar above this is in view with those around it
const HEADING = 34
