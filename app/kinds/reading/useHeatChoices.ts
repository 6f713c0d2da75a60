import { z } from 'zod'
import { ownedStorage } from '~/autosave/ownedStorage'

const Kept = z.object({
  order: z.enum(['heat', 'open', 'text']),
  named: z.boolean(),
  left: z.array(z.string()),
  added: z.array(z.string()),
})

/** What somebody chose to show of the talk on a text: kept in their browser, as they left it. */
export function useHeatChoices(activityId: string) {
  const key = `jovrel:heat:${activityId}`
  const order = ref<'heat' | 'open' | 'text'>('heat')
  const named = ref(true)
  const left = reactive(new Set<string>()) // passages and notes that are not shown
  const added = reactive(new Set<string>()) // passages that are shown beside the first ones
  onMounted(() => {
    const kept = Kept.safeParse(ownedStorage.readJson(key))
    if (kept.success) {
      order.value = kept.data.order
      named.value = kept.data.named
      for (const id of kept.data.left) left.add(id)
      for (const id of kept.data.added) added.add(id)
    }
    watch([order, named, left, added], () =>
      ownedStorage.put(
        key,
        JSON.stringify({ order: order.value, named: named.value, left: [...left], added: [...added] }),
      ),
    )
  })
  return { order, named, left, added }
}
