import { isBehindDialog, isWriting, pageKeys, useLetterKeys, type Key } from './keyList'

export type { Key }

/**
 * Keys of a page. They rest while one is writing, behind an open dialog or menu, and while a modifier other than Shift is
 * held, unless they name it; keys of a single letter rest for whoever has switched them off.
 */
export function useKeys(keys: () => readonly Key[]) {
  const letters = useLetterKeys()
  function onKey(event: KeyboardEvent) {
    const isLetter = event.key.length === 1 && !event.ctrlKey && !event.metaKey
    const name = `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.key}`
    if (isWriting(event) && !name.startsWith('Ctrl+')) return
    if (event.altKey || isBehindDialog() || (isLetter && !letters.value)) return
    const found = keys().find(k => k.keys.split(' ').includes(name))
    if (!found?.run) return
    event.preventDefault()
    found.run(event)
  }
  onMounted(() => {
    window.addEventListener('keydown', onKey)
    pageKeys.value = keys
  })
  onBeforeUnmount(() => {
    window.removeEventListener('keydown', onKey)
    if (pageKeys.value === keys) pageKeys.value = null
  })
}
