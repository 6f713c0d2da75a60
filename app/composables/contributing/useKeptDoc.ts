import { plainText, type RichNode } from '#core/contributing/richText'
import { ownedKey } from '~/autosave/ownedKey'

const EMPTY: RichNode = { type: 'doc', content: [{ type: 'paragraph' }] }

/**
 * A text that is sent as a whole, kept in this browser at every change until it has been sent: it survives a closed tab
 * and a lost connection. Each key has its own text.
 */
export function useKeptDoc(draftKey: () => string) {
  const doc = shallowRef<RichNode>(EMPTY)
  const hasWords = computed(() => plainText(doc.value).trim() !== '')
  const key = () => ownedKey(`jovrel:doc:${draftKey()}`)
  function take() {
    try {
      doc.value = (JSON.parse(localStorage.getItem(key()) ?? 'null') as RichNode | null) ?? EMPTY // as `write` put it
    } catch {
      doc.value = EMPTY
    }
  }
  function write(next: RichNode) {
    doc.value = next
    try {
      if (hasWords.value) localStorage.setItem(key(), JSON.stringify(next))
      else localStorage.removeItem(key())
    } catch {
      /* a browser that keeps nothing does no harm */
    }
  }
  onMounted(take)
  watch(draftKey, take)
  return { doc: shallowReadonly(doc), hasWords, write, clear: () => write(EMPTY) }
}
