import { LiveEvent } from '#shared/contributing/thread'
import * as contributingEndpoints from '#shared/contributing/endpoints'
import { addressOf } from '#shared/http/endpoint'
import { useWikiStore } from '~/stores/wiki'

const GATHER = 120 // milliseconds within which several changes are fetched once

/** Fetches what others change in a wiki as they do it, and what was missed while the connection was lost. */
export function useLivePages(activityId: () => string) {
  const store = useWikiStore()
  const changed = new Set<string | null>()
  let soon: ReturnType<typeof setTimeout> | undefined
  function refreshSoon(id: string | null) {
    changed.add(id)
    soon ??= setTimeout(() => {
      soon = undefined
      const current = store.page?.id ?? null
      const isCurrent = changed.has(current)
      changed.clear()
      void store.refresh(isCurrent ? current : null).catch(() => {})
    }, GATHER)
  }
  let source: EventSource | undefined
  let missed = false
  onMounted(() => {
    source = new EventSource(
      addressOf(contributingEndpoints.followActivity, { params: { activityId: activityId() } }),
    )
    source.onmessage = message => {
      const event = LiveEvent.safeParse(JSON.parse(String(message.data)))
      if (!event.success) return
      if (event.data.kind === 'page') refreshSoon(event.data.pageId)
      if (event.data.kind === 'opened') refreshSoon(store.page?.id ?? null)
    }
    source.onerror = () => {
      missed = true
    }
    source.addEventListener('beat', () => {
      if (missed) void store.refresh().catch(() => {})
      missed = false
    })
  })
  onBeforeUnmount(() => {
    source?.close()
    clearTimeout(soon)
  })
}
