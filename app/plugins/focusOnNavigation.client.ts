/**
 * Puts the keyboard at the beginning of a page one has gone to: what had it is gone, or lies above. A page that has taken
 * it for something of its own keeps it.
 */
export default defineNuxtPlugin(nuxtApp => {
  const router = useRouter()
  let isOnTheWay = false
  router.beforeResolve((to, from) => {
    isOnTheWay = from.matched.length > 0 && to.path !== from.path
  })
  nuxtApp.hook('page:finish', () => {
    if (!isOnTheWay) return
    isOnTheWay = false
    void nextTick(() => {
      const page = document.getElementById('page') ?? document.querySelector('main')
      if (!page || page.contains(document.activeElement)) return
      page.tabIndex = -1
      page.focus({ preventScroll: true })
    })
  })
})
