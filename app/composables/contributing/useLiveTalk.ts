import { addressOf } from '#shared/http/endpoint'
import { LiveEvent, type WholeContribution } from '#shared/contributing/thread'
import { useThreadStore } from '~/stores/thread'
import * as contributingEndpoints from '#shared/contributing/endpoints'

/**
 * Keeps an open talk up to date as others write (server-sent events); the browser reconnects by itself, and after a gap
 * everything is fetched anew; `opened` hears when more than contributions is to be. `arrived` holds what came since it was last looked at.
 */
export function useLiveTalk(before: () => void, opened: () => void = () => {}) {
  const store = useThreadStore()
  const arrived = shallowRef<readonly WholeContribution[]>([])
  let source: EventSource | undefined
  let missed = true // what came between the page and its ear

  onMounted(() => {
    source = new EventSource(
      addressOf(contributingEndpoints.followActivity, { params: { activityId: store.activity!.id } }),
    )
    source.onmessage = message => {
      const event = LiveEvent.safeParse(JSON.parse(String(message.data)))
      if (!event.success) return
      before()
      if (event.data.kind === 'opened') opened()
      const came = store.hear(event.data)
      if (came) arrived.value = [...arrived.value, came]
    }
    source.onerror = () => {
      missed = true
    }
    source.addEventListener('beat', () => {
      // a long reading that opened with its first notes fetches all of them itself, once these are drawn
      if (missed && !store.thread?.more) void store.refresh().catch(() => {})
      missed = false
    })
  })
  onBeforeUnmount(() => source?.close())
  return {
    arrived,
    seen: () => {
      arrived.value = []
    },
  }
}
