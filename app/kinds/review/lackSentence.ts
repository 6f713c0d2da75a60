import type { Lack } from '#core/kinds/review/missing'
import { inWords, listed, plural } from '#core/language'

const NAMED = 3 // what is said by name; the rest is counted

/** What a review still lacks, by name. */
export function lackSentence(
  lacks: readonly Lack[],
  {
    criteria,
    questions,
  }: {
    readonly criteria: ReadonlyArray<{ readonly id: string; readonly title: string }>
    readonly questions: ReadonlyArray<{ readonly id: string; readonly text: string }>
  },
): string {
  const nameOf = ({ kind, id, have, need }: Lack) => {
    const title = criteria.find(c => c.id === id)?.title ?? ''
    if (kind === 'points') return `points for “${title}”`
    const words = have > 0 ? ` (${have} of ${need} words)` : ''
    if (kind === 'remark') return `a remark on “${title}”${words}`
    return `an answer to “${questions.find(q => q.id === id)?.text ?? ''}”${words}`
  }
  const rest = lacks.length - NAMED
  const parts = lacks.slice(0, NAMED).map(nameOf)
  if (rest > 0) parts.push(`${inWords(rest)} more ${plural(rest, 'thing')}`)
  return `Still asked for: ${listed(parts)}.`
}
