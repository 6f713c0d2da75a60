import * as secondFactorEndpoints from '#shared/people/secondFactorEndpoints'
import { useApi } from '~/composables/shell/useApi'

/** How one signs in beyond the password. Read once for all that show it; what one of them changes, the others see. */
export function useSecondStep() {
  const api = useApi()
  return useAsyncData('second-factor', () => api.call(secondFactorEndpoints.readSecondFactor))
}
