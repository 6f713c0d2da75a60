import { useDeskStore } from '~/stores/desk'
import { useNotices } from '~/stores/notices'

/** As long as a page marks: what could not be saved is tried again, what an earlier tab has left is brought back, and leaving warns. */
export function useUnsavedMarks() {
  const store = useDeskStore()
  const notices = useNotices()
  const warn = (event: BeforeUnloadEvent) => {
    if (store.isSaving || store.unsaved.size > 0) event.preventDefault()
  }
  const retry = () => store.retry()
  const retryVisible = () => {
    if (document.visibilityState === 'visible') store.retry() // one may have signed in again
  }
  onMounted(() => {
    store.restoreKept().catch(notices.warn)
    window.addEventListener('beforeunload', warn)
    window.addEventListener('online', retry)
    document.addEventListener('visibilitychange', retryVisible)
  })
  onBeforeUnmount(() => {
    window.removeEventListener('beforeunload', warn)
    window.removeEventListener('online', retry)
    document.removeEventListener('visibilitychange', retryVisible)
    void store.save()
  })
}
