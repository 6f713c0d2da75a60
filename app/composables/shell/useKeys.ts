import { isBehindDialog, isWriting, pageKeys, useSigns, type Key } from './keyList'

export type { Key }

/**
 * Keys of a page. They rest while one is writing, behind an open dialog or menu, and while a modifier other than Shift is
 * held, unless they name it; keys of a single sign rest for whoever has switched them off, and are those that somebody has put in
 * their place.
 */
export function useKeys(keys: () => readonly Key[]) {
  const signs = useSigns()
  function onKey(event: KeyboardEvent) {
    const withCtrl = event.ctrlKey || event.metaKey
    if (event.altKey || isBehindDialog() || (isWriting(event) && !withCtrl)) return
    const isSign = event.key.length === 1 && !withCtrl
    const name = isSign ? signs.namedBy(event.key) : `${withCtrl ? 'Ctrl+' : ''}${event.key}`
    const found = name === null ? undefined : keys().find(k => k.keys.split(' ').includes(name))
    if (!found?.run || name === null) return
    event.preventDefault()
    found.run(name)
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
