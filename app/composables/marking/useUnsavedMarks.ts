import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'
import { useWhenBack } from '../shell/useWhenBack'

/** As long as a page marks: what could not be saved is tried again, what an earlier tab has left is brought back, and leaving warns. */
export function useUnsavedMarks() {
  const store = useDeskStore()
  const notices = useNotices()
  const warn = (event: BeforeUnloadEvent) => {
    if (store.isSaving || store.unsaved.size > 0) event.preventDefault()
  }
  useWhenBack(store.retry, () => void store.save())
  onMounted(() => {
    store.restoreKept().catch(notices.warn)
    window.addEventListener('beforeunload', warn)
  })
  onBeforeUnmount(() => {
    window.removeEventListener('beforeunload', warn)
    void store.save()
  })
}
