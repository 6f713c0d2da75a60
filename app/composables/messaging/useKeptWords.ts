import { ownedKey } from '~/autosave/ownedKey'

/** Words typed in a plain field, kept in this browser until they are sent: they survive a closed tab and a lost connection. */
export function useKeptWords(draftKey: () => string) {
  const words = ref('')
  const isKept = ref(true) // false in a browser that keeps nothing
  const key = () => ownedKey(`jovrel:words:${draftKey()}`)
  const take = () => {
    try {
      words.value = localStorage.getItem(key()) ?? ''
    } catch {
      words.value = ''
    }
  }
  onMounted(take)
  watch(draftKey, take)
  watch(words, now => {
    try {
      if (now.trim() === '') localStorage.removeItem(key())
      else localStorage.setItem(key(), now)
      isKept.value = true
    } catch {
      isKept.value = false
    }
  })
  return { words, isKept }
}
