import { eng, removeStopwords } from 'stopword'

export interface CountedWord {
  readonly word: string
  readonly answers: number
}
const SHORTEST = 3 // letters
const MOST = 24
const FEW_SHARED = 6

/**
 * Words of several answers, most shared first: each counts once for an answer, so that one who repeats a word does not
 * outweigh the others. Words that carry no meaning of their own are left out; a plural counts with its singular where
 * both occur.
 */
export function wordList(answers: readonly string[], most = MOST): CountedWord[] {
  const counts = new Map<string, number>()
  const wordsOf = answers.map(
    text =>
      new Set(
        removeStopwords(
          (
            text
              .toLowerCase()
              .normalize('NFC')
              .match(/[\p{L}\p{M}]+(?:[’'-][\p{L}\p{M}]+)*/gu) ?? []
          ).map(w => w.replace(/’/g, "'").replace(/'s$/, '')),
          eng,
        ).filter(w => w.length >= SHORTEST),
      ),
  )
  const all = new Set(wordsOf.flatMap(w => [...w]))
  const one = (w: string) => (w.endsWith('s') && all.has(w.slice(0, -1)) ? w.slice(0, -1) : w)
  for (const words of wordsOf)
    for (const word of new Set([...words].map(one))) counts.set(word, (counts.get(word) ?? 0) + 1)
  const list = [...counts]
    .map(([word, n]) => ({ word, answers: n }))
    .sort((a, b) => b.answers - a.answers || (a.word < b.word ? -1 : 1))
    .slice(0, most)
  // where some words are shared, those of a single answer only crowd them
  const shared = list.filter(w => w.answers > 1)
  return shared.length >= FEW_SHARED ? shared : list
}
