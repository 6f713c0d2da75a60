import { useNotices } from '~/stores/notices'

/**
 * A page whose scripts cannot be fetched: without a connection one stays where one was and is told; with one, a newer
 * Jovrel has other scripts, and the page is loaded whole.
 */
export default defineNuxtPlugin(nuxtApp => {
  const router = useRouter()
  const notices = useNotices()
  const failures = new Set<unknown>()
  router.beforeEach(() => failures.clear())
  nuxtApp.hook('app:chunkError', ({ error }) => void failures.add(error))
  router.onError(async (error, to) => {
    if (!failures.has(error)) return
    const isReached = await fetch(to.fullPath, { cache: 'no-store' }).then(
      answer => answer.ok,
      () => false,
    )
    if (isReached) window.location.assign(to.fullPath)
    else
      notices.warn(
        new Error(
          'Jovrel could not be reached, and this page was not loaded before. You are where you were; try again in a moment.',
        ),
      )
  })
})
