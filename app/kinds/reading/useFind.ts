import type { Focusable } from '~/components/controls/focusable'
import { useNotices } from '~/stores/notices'
import { useReadingStore } from '~/stores/reading'
import type { useReadingNavigation } from './useReadingNavigation'

/** Finding words in the whole of a text, also on pages that are not drawn, and going from place to place. */
export function useFind(navigation: ReturnType<typeof useReadingNavigation>) {
  const store = useReadingStore()
  const notices = useNotices()
  const words = ref('')
  const at = ref(-1)
  const field = ref<Focusable | null>(null)
  const foundFor = ref('') // what `found` is of
  const { found } = navigation
  async function find(by: 1 | -1 = 1) {
    const q = words.value.trim()
    if (q.length < 2) {
      found.value = []
      at.value = -1
      foundFor.value = ''
      return
    }
    try {
      if (q !== foundFor.value) {
        found.value = (await store.find(q)).places
        foundFor.value = q
        const from = store.view?.text?.parts[navigation.here.value - 1]?.start ?? 0
        at.value = found.value.findIndex(p => p.start >= from) - 1
      }
      if (found.value.length === 0) return
      at.value = (at.value + by + found.value.length) % found.value.length
      await navigation.lightUp(found.value[at.value]!)
    } catch (problem) {
      notices.warn(problem)
    }
  }
  function end() {
    words.value = ''
    found.value = []
    foundFor.value = ''
    at.value = -1
  }
  const said = computed(() => {
    if (foundFor.value === '') return ''
    if (found.value.length === 0) return 'not in it'
    return `${at.value + 1} of ${found.value.length}`
  })
  return { words, field, find, end, said }
}
