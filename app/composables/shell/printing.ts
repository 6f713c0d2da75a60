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
  await prepare.value?.()
  await nextTick()
  window.print()
}

/** Fetches until nothing is missing, or until it is plain that no more comes. */
export async function fetchAll(
  missing: () => readonly string[],
  fetch: (ids: readonly string[]) => Promise<unknown>,
): Promise<void> {
  for (let tries = MOST_TRIES; tries > 0 && missing().length > 0; tries--) {
    await fetch(missing())
    if (missing().length > 0) await new Promise(resolve => setTimeout(resolve, PAUSE)) // others are being fetched
  }
}
const MOST_TRIES = 100
const PAUSE = 100 // milliseconds
