import { isPrinting, printPage } from '~/composables/shell/printing'
import { useNotices } from '~/stores/notices'

/** Ctrl P prints the whole page, also what has to be fetched first; afterwards it is as it was. */
export default defineNuxtPlugin(() => {
  window.addEventListener('beforeprint', () => {
    isPrinting.value = true
  })
  window.addEventListener('afterprint', () => {
    isPrinting.value = false
  })
  window.addEventListener('keydown', event => {
    const isPrintKey =
      (event.ctrlKey || event.metaKey) && !event.shiftKey && !event.altKey && event.key === 'p'
    if (!isPrintKey) return
    event.preventDefault()
    printPage().catch(error => useNotices().warn(error)) // a part could not be fetched: half a page is not printed
  })
})
