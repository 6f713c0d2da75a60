import type { ExpectationRule } from './expectations/rule'

export interface Pace {
  readonly readingWordsPerMinute: number // 220 unless the seminar says otherwise
  readonly writingWordsPerMinute: number // 12
  readonly markingMinutesPerStudent: number // 3, before reading
}
export const USUAL_PACE: Pace = {
  readingWordsPerMinute: 220,
  writingWordsPerMinute: 12,
  markingMinutesPerStudent: 3,
}

export interface Load {
  readonly writing: number // minutes of each student
  readonly reading: number // minutes of each student, of classmates' entries
  readonly marking: number // minutes of the marker for everyone
}

/**
 * Minutes an activity asks for, from the words its expectations ask for. Rules without words (days, sources) take none.
 * Students read one entry of every classmate where the class reads along; the marker reads what each must write.
 *
 * @param people how many students take part, ≥ 0
 */
export function expectedLoad(
  rules: readonly ExpectationRule[],
  people: number,
  classReads: boolean,
  pace: Pace = USUAL_PACE,
): Load {
  const wordsOf = (rule: ExpectationRule) => (asksWords(rule) ? rule.need * rule.minWords : 0)
  const own = rules.reduce((sum, rule) => sum + wordsOf(rule), 0)
  const entries = rules.reduce(
    (sum, rule) =>
      sum +
      (rule.kind === 'entries' || rule.kind === 'weeklyEntries' || rule.kind === 'prompts'
        ? wordsOf(rule)
        : 0),
    0,
  )
  return {
    writing: own / pace.writingWordsPerMinute,
    reading: classReads ? (entries * Math.max(0, people - 1)) / pace.readingWordsPerMinute : 0,
    marking: people * (pace.markingMinutesPerStudent + own / pace.readingWordsPerMinute),
  }
}

/** Minutes still to write for what is missing, for the estimate beside a student's work. */
export function minutesToGo(rule: ExpectationRule, missing: number, pace: Pace = USUAL_PACE): number {
  return asksWords(rule) ? (missing * rule.minWords) / pace.writingWordsPerMinute : 0
}

/** Rules as the load calculates with them: one about prompts asks for as many answers as there are prompts, or for one while none is written. */
export const askedInAll = (rules: readonly ExpectationRule[], prompts: number): ExpectationRule[] =>
  rules.map(rule =>
    rule.kind === 'prompts' ? { ...rule, need: Math.min(200, rule.need * Math.max(1, prompts)) } : rule,
  )

type WithWords = Extract<ExpectationRule, { readonly minWords: number }>
const asksWords = (rule: ExpectationRule): rule is WithWords => 'minWords' in rule
