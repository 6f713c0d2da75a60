import { plainText, type RichNode } from '#core/contributing/richText'
import { ownedStorage } from '~/autosave/ownedStorage'

const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] }

/**
 * A text that is sent as a whole, kept in this browser at every change until it has been sent: it survives a closed tab
 * and a lost connection. Each key has its own text.
 */
export function useKeptDoc(draftKey: () => string) {
  const doc = shallowRef<RichNode>(EMPTY)
  const hasWords = computed(() => plainText(doc.value).trim() !== '')
  const key = () => `jovrel:doc:${draftKey()}`
  const take = () => {
    doc.value = (ownedStorage.readJson(key()) as RichNode | null) ?? EMPTY // as `write` put it
  }
  function write(next: RichNode) {
    doc.value = next
    if (hasWords.value) ownedStorage.put(key(), JSON.stringify(next))
    else ownedStorage.drop(key())
  }
  onMounted(take)
  watch(draftKey, take)
  return { doc: shallowReadonly(doc), hasWords, write, clear: () => write(EMPTY) }
}
