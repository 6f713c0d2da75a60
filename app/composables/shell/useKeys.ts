export interface Key {
  readonly keys: string
  readonly does: string
  readonly run: (event: KeyboardEvent) => void
}

/** Keys of a page. They rest while one is writing, and while a modifier other than Shift is held, unless they name it. */
export function useKeys(keys: () => readonly Key[]) {
  const listOpen = ref(false)
  function onKey(event: KeyboardEvent) {
    const target = event.target
    const writing =
      target instanceof Element && target.closest('input, textarea, select, [contenteditable="true"]')
    const name = `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.key}`
    if (writing && !name.startsWith('Ctrl+')) return
    if (event.altKey) return
    if (name === '?') {
      listOpen.value = !listOpen.value
      return
    }
    const found = keys().find(k => k.keys.split(' ').includes(name))
    if (!found) return
    event.preventDefault()
    found.run(event)
  }
  onMounted(() => window.addEventListener('keydown', onKey))
  onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
  return { listOpen }
}
