import { percentOf } from '#core/marking/gradebook/gradebook'
import type { Gradebook, GradeRow } from '#shared/marking/gradebook'

/** Who is shown of a gradebook. */
export interface GradeFilter {
  readonly words: string
  readonly sectionId: string
  readonly groupId: string
  readonly standing: Standing
}
export type Standing = '' | 'held' | 'missing' | 'ready' | 'below'
export const STANDINGS: ReadonlyArray<readonly [Standing, string]> = [
  ['', 'everyone'],
  ['held', 'something held'],
  ['missing', 'something missing'],
  ['ready', 'work not marked'],
  ['below', 'below the pass mark'],
]

/** Positions of the columns that are shown: by the reader's order where there is one, new ones at the end; else by category. */
export function columnsInOrder(
  book: Gradebook,
  order: readonly string[],
  hidden: readonly string[],
): number[] {
  const byCategory = new Map(book.categories.map((c, i) => [c.id, i]))
  const categoryOf = (i: number) =>
    byCategory.get(book.columns[i]!.categoryId ?? '') ?? book.categories.length
  const orderOf = (i: number) => {
    const at = order.indexOf(book.columns[i]!.id)
    return at < 0 ? order.length : at
  }
  return book.columns
    .map((_, i) => i)
    .filter(i => !hidden.includes(book.columns[i]!.id))
    .sort((a, b) => orderOf(a) - orderOf(b) || categoryOf(a) - categoryOf(b) || a - b)
}

export function isShown(row: GradeRow, filter: GradeFilter, passPercent: number | null): boolean {
  const words = filter.words.trim().toLowerCase()
  if (words && !row.name.toLowerCase().includes(words)) return false
  if (filter.sectionId && row.sectionId !== filter.sectionId) return false
  if (filter.groupId && !row.groupIds.includes(filter.groupId)) return false
  switch (filter.standing) {
    case 'held':
      return row.states.includes('h')
    case 'missing':
      return row.counts.includes('m')
    case 'ready':
      return row.states.includes('w')
    case 'below':
      return row.share !== null && passPercent !== null && percentOf(row.share) < passPercent
    case '':
      return true
  }
}
