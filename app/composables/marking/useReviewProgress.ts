import { usePeersStore } from '~/stores/peers'
import type { PeerNames } from './usePeerNames'

/** How far a peer review has come: how many reviews are in, who owes some, who is late, and who takes part. */
export function useReviewProgress({ nameOf, inOrder }: PeerNames) {
  const store = usePeersStore()
  const view = computed(() => store.view)
  const counts = computed(() => {
    const isOfTeammates = view.value?.settings.subject === 'teammates'
    const all = isOfTeammates ? view.value!.allocations : store.real
    const open = all.filter(a => a.state !== 'in')
    const owing = new Map<string, number>()
    for (const a of open) owing.set(a.reviewerId, (owing.get(a.reviewerId) ?? 0) + 1)
    return {
      in: all.length - open.length,
      all: all.length,
      owing: [...owing].map(([id, owes]) => ({ id, name: nameOf(id), owes })),
    }
  })
  const late = computed(() => {
    const overdue = (view.value?.allocations ?? []).filter(a => a.state !== 'in' && a.late)
    return new Set(overdue.map(a => a.reviewerId)).size
  })
  /** Reviewers who owe something. */
  const idle = computed(() => {
    const owing = new Set(counts.value.owing.map(o => o.id))
    return (view.value?.people ?? []).filter(p => owing.has(p.id))
  })
  const readers = computed(() => {
    const takesPart = (id: string) =>
      store.works.some(w => w.authorIds.includes(id)) || store.real.some(a => a.reviewerId === id)
    return inOrder(view.value?.people.filter(p => takesPart(p.id)) ?? [], p => p.id)
  })
  return { counts, late, idle, readers }
}
