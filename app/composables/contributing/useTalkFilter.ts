import { buildThread, orderThreads, type ThreadOrder } from '#core/contributing/buildThread'
import { isPrinting } from '~/composables/shell/printing'
import { threadRows } from '#core/contributing/threadRows'
import * as contributingEndpoints from '#shared/contributing/endpoints'
import type { ContributionView } from '#shared/contributing/thread'
import type { TalkDesk } from '~/components/contributing/talkDesk'
import { useApi } from '~/composables/shell/useApi'
import { useNotices } from '~/stores/notices'
import { useThreadStore } from '~/stores/thread'

const NONE: ReadonlySet<string> = new Set()
const LONG_THREAD = 12 // answers from which a thread stands folded
const SHORTEST_SEARCH = 2 // letters

const isNew = (c: ContributionView) => c.view === 'whole' && c.isNew

/** What of a discussion is laid out, and in which order: the threads, one person's posts, what is held, or what was found. */
export function useTalkFilter(desk: TalkDesk) {
  const store = useThreadStore()
  const api = useApi()
  const notices = useNotices()
  const order = ref<ThreadOrder>('talk')
  const onlyFrom = ref<string | null>(null) // a person, or 'held'
  const onlyGroup = ref<string | null>(null) // staff read one section or group where each talks by itself
  const words = ref('')
  const found = shallowRef<ReadonlySet<string> | null>(null)

  const roots = computed(() => {
    const group = onlyGroup.value
    if (!group) return store.roots
    return buildThread(
      store.contributions.filter(c => c.view === 'whole' && (c.circle === null || c.circle === group)),
    )
  })
  const threads = computed(() => orderThreads(roots.value, order.value, isNew))
  const held = computed(() => store.whole.filter(c => c.state === 'awaitingApproval'))
  const theirs = computed(() =>
    onlyFrom.value === 'held' ? held.value : store.whole.filter(c => c.author.id === onlyFrom.value),
  )
  const alone = computed(() => {
    const ids = found.value
    if (ids) return store.whole.filter(c => ids.has(c.id))
    return onlyFrom.value ? theirs.value : null
  })
  const rows = computed(() =>
    threadRows<ContributionView>(
      alone.value ? alone.value.map(item => ({ item, replies: [] })) : threads.value,
      {
        folded: isPrinting.value ? NONE : desk.foldedThreads,
        unfolded: desk.openThreads,
        longThread: isPrinting.value ? Infinity : LONG_THREAD,
        replyTo: desk.replyTo.value,
        isNew,
      },
    ),
  )

  async function search() {
    const q = words.value.trim()
    if (q.length < SHORTEST_SEARCH) {
      found.value = null
      return
    }
    try {
      const answer = await api.call(contributingEndpoints.findInThread, {
        params: { activityId: store.activity!.id },
        query: { q },
      })
      found.value = new Set(answer.ids)
    } catch (error) {
      notices.warn(error)
    }
  }
  function endSearch() {
    words.value = ''
    found.value = null
  }
  /** Lets go of every filter that leaves this post out. */
  function include(id: string) {
    if (found.value && !found.value.has(id)) endSearch()
    if (onlyFrom.value && !theirs.value.some(c => c.id === id)) onlyFrom.value = null
    const group = store.whole.find(c => c.id === id)?.circle ?? null
    if (onlyGroup.value && group !== null && group !== onlyGroup.value) onlyGroup.value = null
    if (order.value === 'onlyNew' && !threads.value.some(t => t.item.id === id)) order.value = 'talk'
  }
  return { order, onlyFrom, onlyGroup, words, found, threads, held, theirs, rows, search, endSearch, include }
}
export type TalkFilter = ReturnType<typeof useTalkFilter>
