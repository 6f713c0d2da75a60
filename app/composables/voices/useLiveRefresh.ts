import { addressOf } from '#shared/http/endpoint'
import * as contributingEndpoints from '#shared/contributing/endpoints'

const SETTLE = 2500 // milliseconds without anything new before an open page is refreshed
const LATEST = 15_000 // and no longer than this, however much comes

/** Refreshes when something is said in an activity, debounced: once it has settled a little, and at the latest after a while. */
export function useLiveRefresh(activityId: () => string | null, refresh: () => void) {
  let source: EventSource | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  let since = 0
  function soon() {
    const now = Date.now()
    if (timer === undefined) since = now
    clearTimeout(timer)
    timer = setTimeout(
      () => {
        timer = undefined
        refresh()
      },
      Math.max(0, Math.min(SETTLE, since + LATEST - now)),
    )
  }
  function listen(id: string | null) {
    source?.close()
    source = id
      ? new EventSource(addressOf(contributingEndpoints.followActivity, { params: { activityId: id } }))
      : undefined
    source?.addEventListener('message', soon)
  }
  onMounted(() => {
    watch(activityId, listen, { immediate: true })
  })
  onBeforeUnmount(() => {
    source?.close()
    clearTimeout(timer)
  })
}
