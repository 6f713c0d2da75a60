/**
 * Calls `refresh` every `milliseconds` while the page is in sight, and at once when it comes into sight
 * again. Gives back what does so when asked.
 */
export function useRefreshWhileVisible(refresh: () => void, milliseconds: number): () => void {
  const refreshIfVisible = () => {
    if (document.visibilityState === 'visible') refresh()
  }
  let timer: ReturnType<typeof setInterval> | undefined
  onMounted(() => {
    timer = setInterval(refreshIfVisible, milliseconds)
    document.addEventListener('visibilitychange', refreshIfVisible)
  })
  onBeforeUnmount(() => {
    clearInterval(timer)
    document.removeEventListener('visibilitychange', refreshIfVisible)
  })
  return refreshIfVisible
}
