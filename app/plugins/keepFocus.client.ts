const LANDINGS = 'article, section, li, form, main, aside, nav, [role="group"], [role="region"], #page'

/**
 * Keeps the keyboard where somebody was when what had it goes, by its own act or another's: on the nearest part of the page
 * that is left. What rests for a moment gets the keyboard back when it wakes. Dialogs and menus see to themselves; whoever
 * points needs none of this.
 */
export default defineNuxtPlugin(() => {
  let last: HTMLElement | null = null
  let around: HTMLElement[] = []
  let isByKey = false
  document.addEventListener('keydown', () => (isByKey = true), true)
  document.addEventListener('pointerdown', () => (isByKey = false), true)
  document.addEventListener('focusin', ({ target }) => {
    last = target instanceof HTMLElement && !target.closest('.v-overlay') ? target : null
    around = []
    for (let at = last?.parentElement; at; at = at.parentElement) if (at.matches(LANDINGS)) around.push(at)
  })
  const changes = new MutationObserver(() => {
    if (!last || !isByKey || document.activeElement !== document.body) return
    if (last.isConnected) {
      if (!last.matches(':disabled')) last.focus({ preventScroll: true })
      return
    }
    const left = around.find(part => part.isConnected && part.offsetParent !== null)
    last = null
    if (!left) return
    if (!left.hasAttribute('tabindex')) left.tabIndex = -1
    left.focus({ preventScroll: true })
  })
  changes.observe(document, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ['disabled'],
  })
})
