import type { Apart } from '../contributing/talkSettings'
import type { TakingPart } from './load'

/** Who takes part in an activity, and with whom. */
export interface Audience<P> {
  readonly isMeant: (person: P) => boolean
  readonly conversationOf: (person: P) => string // who shares one reads one another
  readonly groupOf: (person: P) => string | null // in which teammates review each other
  readonly readsAlong: boolean // whether classmates' entries are there to be read
}

/** By what people talk with one another, where they are set apart: the key of one's own conversation. */
export function conversationOf(
  apart: Apart,
  person: { readonly sectionId: string | null; readonly groupId: string | null },
): string {
  const keys: Readonly<Record<Apart, string | null>> = {
    together: null,
    groups: person.groupId,
    sections: person.sectionId,
  }
  return keys[apart] ?? ''
}

/**
 * Sorts people by what activities ask of them: who takes part in the same ones, with as many to read and to review, is of one
 * sort. Without anybody there is one sort that takes part in everything, so that a plan can be weighed before people come.
 *
 * @returns by activity who takes part in it, and how many sorts there are, ≥ 1
 */
export function sortPeople<P>(
  audiences: ReadonlyArray<Audience<P>>,
  people: readonly P[],
): { readonly parts: ReadonlyArray<readonly TakingPart[]>; readonly sorts: number } {
  if (people.length === 0)
    return { parts: audiences.map(() => [{ sort: 0, people: 0, reads: 0, teammates: 0 }]), sorts: 1 }
  const shares = audiences.map(a => sharesIn(a, people))
  const sortOf = new Map<string, number>()
  const parts = audiences.map(() => new Map<number, TakingPart>())
  for (const person of people) {
    const own = shares.map(share => share(person))
    const key = own.map(o => (o ? `${o.reads}/${o.teammates}` : '-')).join(' ')
    const sort = sortOf.get(key) ?? sortOf.size
    sortOf.set(key, sort)
    for (const [i, o] of own.entries()) {
      if (!o) continue
      const before = parts[i]!.get(sort)?.people ?? 0
      parts[i]!.set(sort, { sort, people: before + 1, ...o })
    }
  }
  return { parts: parts.map(p => [...p.values()]), sorts: sortOf.size }
}

/** How much a person has to read and to review in an activity; null for who takes no part. */
function sharesIn<P>(
  { isMeant, conversationOf, groupOf, readsAlong }: Audience<P>,
  people: readonly P[],
): (person: P) => Pick<TakingPart, 'reads' | 'teammates'> | null {
  const meant = new Set(people.filter(isMeant))
  const talking = countBy([...meant], conversationOf)
  const grouped = countBy([...meant], groupOf)
  return person => {
    if (!meant.has(person)) return null
    const group = groupOf(person)
    return {
      reads: readsAlong ? talking.get(conversationOf(person))! - 1 : 0,
      teammates: group === null ? 0 : grouped.get(group)! - 1,
    }
  }
}

function countBy<P>(people: readonly P[], keyOf: (person: P) => string | null): Map<string, number> {
  const counts = new Map<string, number>()
  for (const person of people) {
    const key = keyOf(person)
    if (key !== null) counts.set(key, (counts.get(key) ?? 0) + 1)
  }
  return counts
}
