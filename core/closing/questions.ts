/** A question put after an activity: a step on a scale, one or several of some answers, or words. */
export type ClosingQuestion =
  | {
      readonly id: string
      readonly kind: 'scale'
      readonly text: string
      readonly steps: number
      readonly low: string
      readonly high: string
    }
  | {
      readonly id: string
      readonly kind: 'choice'
      readonly text: string
      readonly options: readonly string[]
      readonly several: boolean
    }
  | { readonly id: string; readonly kind: 'open'; readonly text: string }

/** A step from 1, the chosen of options from 0, or words. */
export type ClosingAnswer = number | readonly number[] | string
/** One person's answers, by question; what was passed over is not in it. */
export type ClosingAnswers = Readonly<Record<string, ClosingAnswer>>
/** Answers without names: of each question all that were given, in the order of their writing. */
export type Urns = Readonly<Record<string, readonly ClosingAnswer[]>>

export const LONGEST_OPEN_ANSWER = 2000 // characters

/** @returns the answer as it is kept, or null where it answers nothing that was asked */
export function fits(question: ClosingQuestion, answer: ClosingAnswer | undefined): ClosingAnswer | null {
  switch (question.kind) {
    case 'scale':
      return typeof answer === 'number' && Number.isInteger(answer) && answer >= 1 && answer <= question.steps
        ? answer
        : null
    case 'choice': {
      if (!Array.isArray(answer)) return null
      const chosen = [...new Set(answer as readonly number[])].sort((a, b) => a - b)
      return chosen.length > 0 &&
        chosen.every(p => Number.isInteger(p) && p >= 0 && p < question.options.length) &&
        (question.several || chosen.length === 1)
        ? chosen
        : null
    }
    case 'open': {
      const words = typeof answer === 'string' ? answer.trim().slice(0, LONGEST_OPEN_ANSWER) : ''
      return words === '' ? null : words
    }
  }
}

/** What of somebody’s answers is kept. */
export function keptAnswers(questions: readonly ClosingQuestion[], given: ClosingAnswers): ClosingAnswers {
  return Object.fromEntries(
    questions.flatMap(q => {
      const answer = fits(q, given[q.id])
      return answer === null ? [] : [[q.id, answer]]
    }),
  )
}

const written = (answer: ClosingAnswer): string => JSON.stringify(answer)

/**
 * Puts somebody’s answers in with the others’ and forgets whose they were: each goes into its question’s urn, which is
 * kept sorted by what stands in it. What is kept depends only on which answers there are, never on who came when
 * (a history-independent structure: Naor and Teague, 2001), and answers to different questions do not hang together.
 */
export function putIn(urns: Urns, answers: ClosingAnswers): Urns {
  const out: Record<string, readonly ClosingAnswer[]> = { ...urns }
  for (const [id, answer] of Object.entries(answers))
    out[id] = [...(out[id] ?? []), answer].sort((a, b) => {
      if (written(a) < written(b)) return -1
      if (written(a) > written(b)) return 1
      return 0
    })
  return Object.fromEntries(
    Object.entries(out).sort(([a], [b]) => {
      if (a < b) return -1
      if (a > b) return 1
      return 0
    }),
  )
}

/** Fewer answers than this are not shown where names are not kept: somebody who knows who took part would know too much. */
export const FEWEST_UNNAMED = 4
