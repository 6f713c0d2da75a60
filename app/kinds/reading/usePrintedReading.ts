import { useBeforePrint } from '~/composables/shell/printing'
import { useReadingStore } from '~/stores/reading'
import { useThreadStore } from '~/stores/thread'

/** Pages of a paper up to which all are drawn to be printed; a longer one is printed from its own file. */
const MOST_DRAWN = 60

/** Whether a text is printed with all of its pages, drawn or not before. */
export const isPrintedWhole = (text: { readonly form: string; readonly parts: readonly unknown[] }) =>
  text.form !== 'paper' || text.parts.length <= MOST_DRAWN

/** Fetches a text and what was noted in it, and waits until its pages are drawn, before it goes on paper. */
export function usePrintedReading(drawn: (part: number) => Promise<void>) {
  const store = useReadingStore()
  const thread = useThreadStore()
  const missing = () =>
    thread.contributions.flatMap(c => (c.view === 'whole' && c.html === null ? [c.id] : []))
  useBeforePrint(async () => {
    const text = store.view?.text
    if (!text) return
    if (thread.thread?.more) await thread.refresh()
    await store.needParts(text.parts.map(p => p.number))
    await thread.needTexts(missing())
    if (isPrintedWhole(text)) for (const { number } of text.parts) await drawn(number)
  })
}
