/**
 * Runs something when there is a line again, and when somebody looks at the page again: they may have signed in elsewhere.
 *
 * @param leave runs when the page is no longer looked at: the tab may be closed next
 */
export function useWhenBack(back: () => void, leave: () => void = () => {}) {
  const look = () => {
    if (document.visibilityState === 'visible') back()
    else leave()
  }
  onMounted(() => {
    window.addEventListener('online', back)
    document.addEventListener('visibilitychange', look)
  })
  onBeforeUnmount(() => {
    window.removeEventListener('online', back)
    document.removeEventListener('visibilitychange', look)
  })
}
