import { defineStore } from 'pinia'
import { readOnlyState } from './readOnlyState'
import type { ReadingView } from '#shared/kinds/reading/reading'
import { useApi } from '../composables/shell/useApi'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

/** The text of one reading; its notes are with the talk. */
export const useReadingStore = readOnlyState(
  defineStore('reading', () => {
    const api = useApi() // taken here once: after an await there is no request to bind it to
    const activityId = ref<string | null>(null)
    const view = shallowRef<ReadingView | null>(null)
    const html = shallowRef<ReadonlyMap<number, string>>(new Map())

    async function load(id: string) {
      const next = await api.call(readingEndpoints.readReading, { params: { activityId: id } })
      if (
        activityId.value !== id ||
        view.value?.text?.version !== next.text?.version ||
        view.value?.text?.id !== next.text?.id
      )
        html.value = new Map()
      html.value = new Map([...html.value, ...next.first.map(p => [p.number, p.html] as const)])
      activityId.value = id
      view.value = next
    }
    const asked = new Set<number>()
    /** Fetches sections of an article that are about to be read. */
    async function needParts(numbers: readonly number[]) {
      const missing = numbers.filter(n => !html.value.has(n) && !asked.has(n))
      if (missing.length === 0 || view.value?.text?.form !== 'article') return
      missing.forEach(n => asked.add(n))
      try {
        const { parts } = await api.call(readingEndpoints.readTextParts, {
          params: { activityId: activityId.value! },
          query: { from: Math.min(...missing), to: Math.max(...missing) },
        })
        html.value = new Map([...html.value, ...parts.map(p => [p.number, p.html] as const)])
      } finally {
        missing.forEach(n => asked.delete(n))
      }
    }
    const find = (words: string) =>
      api.call(readingEndpoints.findInText, {
        params: { activityId: activityId.value! },
        query: { q: words },
      })
    const settle = (id: string, settled: boolean) =>
      api.call(readingEndpoints.settleQuestion, { params: { contributionId: id }, body: { settled } })
    return { activityId, view, html, load, needParts, find, settle }
  }),
)
