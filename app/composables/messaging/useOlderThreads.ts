import type { ThreadList } from '#shared/messaging/messages'

/** A list of conversations that goes on when more is asked for; what the first page holds is not listed twice. */
export function useOlderThreads(
  first: () => ThreadList | null | undefined,
  fetchBefore: (threadId: string) => Promise<ThreadList>,
) {
  const older = shallowRef<ThreadList | null>(null)
  const threads = computed(() => {
    const now = first()?.threads ?? []
    return [...now, ...(older.value?.threads ?? []).filter(t => !now.some(x => x.id === t.id))]
  })
  const more = computed(() => (older.value ? older.value.more : (first()?.more ?? false)))
  async function loadMore() {
    const next = await fetchBefore(threads.value.at(-1)!.id)
    older.value = { ...next, threads: [...(older.value?.threads ?? []), ...next.threads] }
  }
  return { threads, more, loadMore }
}
