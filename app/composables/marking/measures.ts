import { countSentences, countWords } from '#core/contributing/measureText'
import type { RecordView } from '#shared/marking/desk'

/** Figures about a record for whoever asks for them; they say how much and how long, not how good. */
export function measuresOf({ items, summary }: RecordView): Array<{ name: string; value: string }> {
  const shown = items.filter(i => !i.withdrawn)
  const sentences = shown.reduce((n, i) => n + countSentences(i.text), 0)
  const words = shown.reduce((n, i) => n + countWords(i.text), 0)
  const longest = Math.max(0, ...shown.map(i => i.words))
  const answered = shown.filter(i => i.answered.length > 0).length
  return [
    { name: 'words each', value: shown.length > 0 ? String(Math.round(summary.words / shown.length)) : '–' },
    { name: 'longest', value: `${longest} words` },
    { name: 'words a sentence', value: sentences > 0 ? (words / sentences).toFixed(1) : '–' },
    { name: 'answers to others', value: String(shown.filter(i => i.answers).length) },
    { name: 'answered by others', value: `${answered} of ${shown.length}` },
    { name: 'active days', value: String(summary.days) },
  ]
}
