import type { ClosingAnswer, ClosingQuestion } from './questions'
import { wordList, type CountedWord } from './wordList'

/** What came in to one question, in figures. */
export type QuestionResult =
  | {
      readonly kind: 'scale'
      readonly answered: number
      readonly counts: readonly number[]
      readonly mean: number | null
      readonly median: number | null
    }
  | { readonly kind: 'choice'; readonly answered: number; readonly counts: readonly number[] }
  | {
      readonly kind: 'open'
      readonly answered: number
      readonly answers: readonly string[]
      readonly words: readonly CountedWord[]
    }
export type OpenResult = Extract<QuestionResult, { kind: 'open' }>

/**
 * @param answers to this question, one for each who answered it
 * @returns `counts` for each step or option; the median of an even number lies halfway between the two in the middle
 */
export function resultOf(question: ClosingQuestion, answers: readonly ClosingAnswer[]): QuestionResult {
  switch (question.kind) {
    case 'scale': {
      const steps = (answers as readonly number[]).slice().sort((a, b) => a - b)
      const n = steps.length
      return {
        kind: 'scale',
        answered: n,
        counts: Array.from({ length: question.steps }, (_, i) => steps.filter(s => s === i + 1).length),
        mean: n === 0 ? null : steps.reduce((a, b) => a + b, 0) / n,
        median: n === 0 ? null : (steps[(n - 1) >> 1]! + steps[n >> 1]!) / 2,
      }
    }
    case 'choice':
      return {
        kind: 'choice',
        answered: answers.length,
        counts: question.options.map(
          (_, i) => answers.filter(a => (a as readonly number[]).includes(i)).length,
        ),
      }
    case 'open': {
      const texts = (answers as readonly string[]).slice().sort()
      return { kind: 'open', answered: texts.length, answers: texts, words: wordList(texts) }
    }
  }
}
