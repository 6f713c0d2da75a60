const STAYS_AFTER = 5000 // milliseconds: a page that is still here then was not left, only something taken from it

let leftAt = Number.NEGATIVE_INFINITY
if (typeof window !== 'undefined') window.addEventListener('beforeunload', () => (leftAt = Date.now()))

/**
 * Does something that must not be done by a page that is being left: at once, or, if it seems to be left, once it turns
 * out that it was not. Between leaving and being gone a page still hears answers, and what opens next was asked for before.
 */
export function unlessLeft(act: () => void): void {
  if (Date.now() - leftAt >= STAYS_AFTER) act()
  else setTimeout(act, STAYS_AFTER)
}
