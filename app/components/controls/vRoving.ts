import type { ObjectDirective } from 'vue'

const ITEMS = 'button:not(:disabled), a[href], input[type="file"], input[type="checkbox"]'
interface Roving {
  settle: () => void
  stop: () => void
}
const kept = new WeakMap<HTMLElement, Roving>()

/**
 * One stop of the tabulator for a toolbar or a group of choices: arrows to the sides, Home and End go from control to
 * control within it (WAI-ARIA authoring practices, toolbar). It begins at what is chosen, and remembers where one was.
 * Fields in which arrows move the caret stay stops of their own.
 */
export const vRoving: ObjectDirective<HTMLElement> = {
  mounted(element) {
    kept.set(element, rove(element))
  },
  updated(element) {
    kept.get(element)?.settle()
  },
  beforeUnmount(element) {
    kept.get(element)?.stop()
  },
  getSSRProps: () => ({}),
}

function rove(group: HTMLElement): Roving {
  let current: HTMLElement | null = null
  const items = () => [...group.querySelectorAll<HTMLElement>(ITEMS)]
  function settle() {
    const all = items()
    const isInside = group.contains(document.activeElement)
    const chosen = isInside
      ? undefined
      : all.find(item => item.ariaChecked === 'true' || item.ariaCurrent === 'true')
    if (chosen) current = chosen
    else if (!current || !all.includes(current)) current = all[0] ?? null
    for (const item of all) {
      const index = item === current ? 0 : -1
      if (item.tabIndex !== index || !item.hasAttribute('tabindex')) item.tabIndex = index
    }
  }
  function onFocus({ target }: FocusEvent) {
    if (!(target instanceof HTMLElement) || !items().includes(target)) return
    current = target
    settle()
  }
  function onKey(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return
    const all = items()
    const at = all.findIndex(item => item === event.target)
    if (at < 0) return
    const on = getComputedStyle(group).direction === 'rtl' ? -1 : 1
    const next = {
      ArrowRight: all[(at + on + all.length) % all.length],
      ArrowLeft: all[(at - on + all.length) % all.length],
      Home: all[0],
      End: all.at(-1),
    }[event.key]
    if (!next) return
    event.preventDefault()
    event.stopPropagation()
    next.focus()
  }
  settle()
  const changes = new MutationObserver(settle)
  changes.observe(group, { childList: true, subtree: true })
  group.addEventListener('focusin', onFocus)
  group.addEventListener('focusout', () => void setTimeout(settle))
  group.addEventListener('keydown', onKey)
  return { settle, stop: () => changes.disconnect() }
}
