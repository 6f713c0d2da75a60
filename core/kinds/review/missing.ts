import { countWords } from '#core/contributing/measureText'

export interface GivenParts {
  readonly points: Readonly<Record<string, number>>
  readonly remarks: Readonly<Record<string, string>>
  readonly answers: Readonly<Record<string, string>>
}
export interface AskedParts {
  readonly criteria: ReadonlyArray<{ readonly id: string }>
  readonly questions: ReadonlyArray<{ readonly id: string; readonly minWords: number }>
  readonly remarkWords: number
}
/** What a review still lacks: points or a remark for a criterion, or the answer to a question. `have` and `need` are words; 0 of points. */
export interface Lack {
  readonly kind: 'points' | 'remark' | 'answer'
  readonly id: string
  readonly have: number
  readonly need: number
}

/** All that is asked for and not there yet, criterion by criterion, then question by question. Empty: it can be handed in. */
export function lacksOf(given: GivenParts, { criteria, questions, remarkWords }: AskedParts): Lack[] {
  const short = (kind: 'remark' | 'answer', id: string, text: string | undefined, need: number): Lack[] => {
    const have = countWords(text ?? '')
    return have < need ? [{ kind, id, have, need }] : []
  }
  return [
    ...criteria.flatMap(c => [
      ...(given.points[c.id] === undefined ? [{ kind: 'points' as const, id: c.id, have: 0, need: 0 }] : []),
      ...short('remark', c.id, given.remarks[c.id], remarkWords),
    ]),
    ...questions.flatMap(q => short('answer', q.id, given.answers[q.id], q.minWords)),
  ]
}
