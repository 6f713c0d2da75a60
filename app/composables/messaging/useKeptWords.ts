import { ownedStorage } from '~/autosave/ownedStorage'

/** Words typed in a plain field, kept in this browser until they are sent: they survive a closed tab and a lost connection. */
export function useKeptWords(draftKey: () => string) {
  const words = ref('')
  const isKept = ref(true) // false in a browser that keeps nothing
  const key = () => `jovrel:words:${draftKey()}`
  const take = () => {
    words.value = ownedStorage.read(key()) ?? ''
  }
  onMounted(take)
  watch(draftKey, take)
  watch(words, now => {
    if (now.trim() === '') ownedStorage.drop(key())
    else isKept.value = ownedStorage.put(key(), now)
  })
  return { words, isKept }
}
