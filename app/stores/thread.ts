import { defineStore } from 'pinia'
import { buildThread } from '#core/contributing/buildThread'
import type { ActivityView } from '#shared/contributing/activity'
import type { ContributionView, DraftView, ThreadView, WholeContribution } from '#shared/contributing/thread'
import { newKey, useApi } from '../composables/shell/useApi'

/** One activity's talk as this reader has it. */
export const useThreadStore = defineStore('thread', () => {
  const api = useApi() // taken here once: after an await there is no request to bind it to
  const activity = ref<ActivityView | null>(null)
  const thread = ref<ThreadView | null>(null)

  async function load(activityId: string) {
    const [a, t] = await Promise.all([api.get<ActivityView>(`/api/activities/${activityId}`), api.get<ThreadView>(`/api/activities/${activityId}/contributions`)])
    if (activity.value?.id !== activityId) { activity.value = null; thread.value = null }
    activity.value = a
    thread.value = t
  }

  /** Fetches what has come meanwhile; what was new on this visit stays marked as new. */
  async function refresh() {
    if (!activity.value) return
    const fresh = new Set(whole.value.filter(c => c.isNew).map(c => c.id))
    const [a, t] = await Promise.all([api.get<ActivityView>(`/api/activities/${activity.value.id}`), api.get<ThreadView>(`/api/activities/${activity.value.id}/contributions`)])
    activity.value = a
    thread.value = { ...t, contributions: t.contributions.map(c => c.view === 'whole' && fresh.has(c.id) ? { ...c, isNew: true } : c) }
  }

  const contributions = computed<readonly ContributionView[]>(() => thread.value?.contributions ?? [])
  const whole = computed<readonly WholeContribution[]>(() => contributions.value.filter(c => c.view === 'whole'))
  const roots = computed(() => buildThread(contributions.value))
  const draftAt = (parentId: string | null): DraftView | null => thread.value?.drafts.find(d => d.parentId === parentId) ?? null

  const recordVisit = () => activity.value && api.put(`/api/activities/${activity.value.id}/visit`)

  async function nod(id: string) {
    const c = whole.value.find(x => x.id === id)
    if (!c) return
    replace({ ...c, nodded: !c.nodded, nods: c.nods + (c.nodded ? -1 : 1) })
    try {
      const answer = await api.put<{ nods: number, nodded: boolean }>(`/api/contributions/${id}/nod`, { nodded: !c.nodded })
      replace({ ...c, ...answer })
    }
    catch (error) {
      replace(c)
      throw error
    }
  }
  async function withdraw(id: string, withdrawn: boolean) {
    await api.put(`/api/contributions/${id}/withdrawn`, { withdrawn })
    await refresh()
  }
  async function edit(id: string, doc: unknown, baseVersion: number) {
    await api.patch(`/api/contributions/${id}`, { key: newKey(), doc, baseVersion })
    await refresh()
  }
  function replace(c: WholeContribution) {
    if (thread.value) thread.value = { ...thread.value, contributions: thread.value.contributions.map(x => x.id === c.id ? c : x) }
  }
  return { activity, thread, contributions, whole, roots, load, refresh, draftAt, recordVisit, nod, withdraw, edit }
})
