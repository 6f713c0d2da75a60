import type { FoundNameView } from '#shared/kinds/review/review'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'
import { useApi } from '~/composables/shell/useApi'

/** Looks for names in what is about to be sent without one; what is found, its writer decides about. */
export function useNamesCheck(activityId: () => string) {
  const api = useApi()
  const found = shallowRef<readonly FoundNameView[]>([])
  let settle: ((goesOn: boolean) => void) | null = null

  /** @returns whether it shall be sent: nothing was found, or its writer wants it as it is */
  async function isFine(text: string): Promise<boolean> {
    const answer = await api.call(reviewEndpoints.findNamesInWork, {
      params: { activityId: activityId() },
      body: { text, fileIds: [] },
    })
    if (answer.found.length === 0) return true
    found.value = answer.found
    return new Promise(resolve => {
      settle = resolve
    })
  }
  function decide(goesOn: boolean) {
    found.value = []
    settle?.(goesOn)
    settle = null
  }
  return { found, isFine, decide }
}
