import type { WholeContribution } from '#shared/contributing/thread'

export interface JournalAuthor {
  readonly id: string
  readonly name: string
  readonly isMe: boolean
  readonly entries: readonly WholeContribution[]
  /** Entries and answers that the reader has not seen. */
  readonly fresh: number
  /** When the last entry came, ISO 8601. */
  readonly last: string
  /** Whether under an entry the last word is the student's. */
  readonly waits: boolean
}

function byKey<T>(items: readonly T[], keyOf: (item: T) => string): ReadonlyMap<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const item of items) groups.set(keyOf(item), [...(groups.get(keyOf(item)) ?? []), item])
  return groups
}
const familyName = (author: JournalAuthor) => author.name.split(' ').at(-1)!

/** The authors of a journal's entries by family name, each with what is new and whether somebody waits for an answer. */
export function journalAuthors(
  entries: readonly WholeContribution[],
  contributions: readonly WholeContribution[],
): JournalAuthor[] {
  const repliesByEntry = byKey(
    contributions.filter(c => c.threadId !== c.id),
    c => c.threadId,
  )
  const authors = [...byKey(entries, e => e.author.id).values()].map((own): JournalAuthor => {
    const { author } = own[0]!
    const repliesOf = (entry: WholeContribution) => repliesByEntry.get(entry.id) ?? []
    return {
      id: author.id,
      name: author.name,
      isMe: author.isMe,
      entries: own,
      fresh: own.flatMap(e => [e, ...repliesOf(e)]).filter(c => c.isNew).length,
      last: own.map(e => e.shownAt).reduce((a, b) => (b > a ? b : a)),
      waits: own.some(e => !(repliesOf(e).at(-1) ?? e).author.isStaff),
    }
  })
  return authors.sort((a, b) => familyName(a).localeCompare(familyName(b)))
}
