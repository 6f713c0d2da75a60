import type { TalkEntry } from './talkEntry'

export interface Echo {
  readonly id: string
  readonly answers: number
  readonly people: number
}

/**
 * Contributions by how often others answered them directly, most first; those answered by more people
 * before those answered more by few.
 */
export function mostAnswered(talkEntries: readonly TalkEntry[], most: number): Echo[] {
  const by = new Map<string, { answers: number; people: Set<string> }>()
  for (const { parentId, authorId, answersId } of talkEntries) {
    if (parentId === null || answersId === authorId) continue
    const echo = by.get(parentId) ?? { answers: 0, people: new Set<string>() }
    echo.answers++
    echo.people.add(authorId)
    by.set(parentId, echo)
  }
  return [...by]
    .map(([id, e]) => ({ id, answers: e.answers, people: e.people.size }))
    .sort((a, b) => b.answers - a.answers || b.people - a.people || a.id.localeCompare(b.id))
    .slice(0, most)
}
