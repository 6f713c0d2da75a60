/** A remark kept for reuse. */
export interface Phrase {
  readonly id: string
  readonly text: string // with placeholders
  readonly criterion: string | null // title of the criterion it is about; null: any
  readonly uses: number
  readonly lastUsedAt: Date | null
}

export const PLACEHOLDERS = ['first name', 'criterion', 'points'] as const
export type Placeholder = (typeof PLACEHOLDERS)[number]
const PLACE = /\{\s*(first name|criterion|points)\s*\}/gi

/**
 * A phrase with its placeholders filled: "{first name}", "{criterion}", "{points}". One whose value is not known yet stays
 * as it is, to be filled when it is.
 */
export const fillPhrase = (text: string, values: Partial<Record<Placeholder, string>>): string =>
  text.replace(PLACE, (whole, name: string) => values[name.toLowerCase() as Placeholder] ?? whole)

const folded = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{Diacritic}/gu, '')
    .toLowerCase()

/**
 * Phrases that hold all the words sought, the likeliest first: those about the criterion at hand, then by how often they
 * were used, a use losing half its weight in 30 days, then by their text.
 */
export function findPhrases(
  phrases: readonly Phrase[],
  words: string,
  criterion: string | null,
  now: Date,
): Phrase[] {
  const sought = folded(words).split(/\s+/).filter(Boolean)
  const weight = (p: Phrase) =>
    p.lastUsedAt
      ? p.uses * 0.5 ** (Math.max(0, now.getTime() - p.lastUsedAt.getTime()) / (30 * 86_400_000))
      : 0
  const fits = (p: Phrase) => {
    if (p.criterion !== null && criterion !== null && folded(p.criterion) === folded(criterion)) return 2
    if (p.criterion === null) return 1
    return 0
  }
  return phrases
    .filter(p => {
      const text = folded(`${p.text} ${p.criterion ?? ''}`)
      return sought.every(word => text.includes(word))
    })
    .sort((a, b) => fits(b) - fits(a) || weight(b) - weight(a) || a.text.localeCompare(b.text))
}
