const AHEAD = '1800px 0px'

type Seen = (isInSight: boolean) => void
interface Watch {
  readonly observer: IntersectionObserver
  readonly told: Map<Element, Seen>
}
const watches = new Map<Element | null, Watch>() // by what scrolls; null: the window

function watchOf(scroller: Element | null): Watch {
  const there = watches.get(scroller)
  if (there) return there
  const told = new Map<Element, Seen>()
  const observer = new IntersectionObserver(
    entries => {
      for (const { target, isIntersecting } of entries) told.get(target)?.(isIntersecting)
    },
    { root: scroller, rootMargin: AHEAD },
  )
  const made = { observer, told }
  watches.set(scroller, made)
  return made
}

/**
 * Says whether a row is about to be read, now and whenever that changes. One observer serves all rows of a long text.
 * @returns how to stop
 */
export function watchSight(row: Element, scroller: Element | null, seen: Seen): () => void {
  const { observer, told } = watchOf(scroller)
  told.set(row, seen)
  observer.observe(row)
  return () => {
    observer.unobserve(row)
    told.delete(row)
    if (told.size > 0) return
    observer.disconnect()
    watches.delete(scroller)
  }
}
