import { useOutbox } from '../composables/contributing/useOutbox'

/** Posts written without a connection go out when it is back, and when Jovrel is opened again. */
export default defineNuxtPlugin(nuxt => {
  const { flush } = useOutbox()
  nuxt.hook('app:mounted', () => void flush())
  window.addEventListener('online', () => void flush())
})
