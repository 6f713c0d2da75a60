import { setOwner } from '../autosave/ownedKey'
import { useSessionStore } from '../stores/session'
import { useOutbox } from '../composables/contributing/useOutbox'

/** Posts written without a connection go out when it is back, and when Jovrel is opened again. */
export default defineNuxtPlugin(nuxt => {
  const { flush } = useOutbox()
  const session = useSessionStore()
  watch(
    () => session.session?.person.id ?? null,
    personId => {
      setOwner(personId)
      void flush()
    },
    { immediate: true, flush: 'sync' },
  )
  nuxt.hook('app:mounted', () => void flush())
  window.addEventListener('online', () => void flush())
})
