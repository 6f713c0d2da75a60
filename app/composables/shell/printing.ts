/** Whether the page goes on paper: everything on it stands whole then. */
export const isPrinting = shallowRef(false)
const prepare = shallowRef<(() => Promise<unknown>) | null>(null)

/** What a page fetches or draws before it goes on paper; a page that has nothing to prepare does not ask. */
export function useBeforePrint(make: () => Promise<unknown>) {
  onMounted(() => {
    prepare.value = make
  })
  onBeforeUnmount(() => {
    if (prepare.value === make) prepare.value = null
  })
}

/** Prints the page, once all of it is there. The browser's own menu prints what is there by then. */
export async function printPage(): Promise<void> {
  isPrinting.value = true // until the browser says that it has printed, or that nobody wanted to
  try {
    await prepare.value?.()
  } catch (error) {
    isPrinting.value = false
    throw error
  }
  await nextTick()
  window.print()
}
