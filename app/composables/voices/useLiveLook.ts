import { addressOf } from '#shared/http/endpoint'
import * as contributingEndpoints from '#shared/contributing/endpoints'
const SETTLE = 2500 // milliseconds without anything new before an open page looks again
const LATEST = 15_000 // and no longer than this, however much comes

/** Looks again when something is said in an activity that is open to look at, once it has settled a little. */
export function useLiveLook(activityId: () => string | null, look: () => void) {
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
        look()
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
