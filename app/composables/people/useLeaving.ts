import { useSessionStore } from '~/stores/session'

/** Signs out. A whole new page is loaded: nothing of who was signed in stays in memory. */
export function useLeaving() {
  const session = useSessionStore()
  return async () => {
    await session.signOut()
    await navigateTo('/sign-in', { external: true })
  }
}
