import type { PDFDocumentProxy } from 'pdfjs-dist'
import workerUrl from 'pdfjs-dist/legacy/build/pdf.worker.min.mjs?url'

type Pdfjs = typeof import('pdfjs-dist')
/** A paper that is open on the page: its reader, and the paper. Nothing in a paper is run. */
export interface OpenPaper {
  readonly pdfjs: Pdfjs
  readonly paper: PDFDocumentProxy
  readonly close: () => Promise<void>
}

/** Opens a paper; its pages are fetched as they are needed. @throws what the reader says when it cannot be opened */
async function openPaper(url: string): Promise<OpenPaper> {
  // the build for older browsers ships without types of its own: they are those of the main build
  const pdfjs = (await import('pdfjs-dist/legacy/build/pdf.mjs')) as unknown as Pdfjs
  pdfjs.GlobalWorkerOptions.workerSrc = workerUrl
  const task = pdfjs.getDocument({
    url,
    isEvalSupported: false,
    enableXfa: false,
    useWasm: false,
    disableAutoFetch: true,
    cMapUrl: '/paper/cmaps/',
    standardFontDataUrl: '/paper/fonts/',
  })
  return { pdfjs, paper: await task.promise, close: () => task.destroy() }
}

/** The paper at an address, open for as long as the page is; opened anew when the address changes. */
export function usePaper(address: () => string | null) {
  const paper = shallowRef<OpenPaper | null>(null)
  const problem = ref(false)
  async function open() {
    const url = address()
    if (!url) return
    const before = paper.value
    problem.value = false
    try {
      paper.value = await openPaper(url)
    } catch {
      problem.value = true
    }
    await before?.close()
  }
  watch(address, (now, before) => {
    if (now !== before && import.meta.client) void open()
  })
  // begun before the page has come to life: what it reads comes meanwhile
  if (import.meta.client) void open()
  onBeforeUnmount(() => void paper.value?.close())
  return { paper, problem, open }
}
