import { useSending } from '~/composables/shell/useSending'
import { useSessionStore } from '~/stores/session'

/** Signs out, and loads a whole new page: nothing of who was signed in stays in memory. A refusal is said, and one stays. */
export function useLeaving() {
  const session = useSessionStore()
  const { attempt } = useSending()
  return () =>
    attempt(async () => {
      await session.signOut()
      window.location.assign('/sign-in')
    })
}
