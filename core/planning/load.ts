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

/** Students who take part alike: of one sort in everything that is counted together. */
export interface TakingPart {
  readonly sort: number // the same number in two activities means the same students
  readonly people: number // ≥ 0
  readonly reads: number // classmates whose entries each of them reads
  readonly teammates: number // others in their group, for reviews of everyone in it
}

/** Words one rule asks of a student, each time it asks. Rules without words (days, sources) ask for none. */
export function wordsToWrite(rule: ExpectationRule, part: Pick<TakingPart, 'teammates'>): number {
  if (!asksWords(rule)) return 0
  const need = rule.kind === 'reviews' && rule.everyone ? part.teammates : rule.need
  return need * rule.minWords
}

/**
 * Words one rule makes a student read, each time it asks: an entry of every classmate where these are read along, and the
 * drafts that are reviewed.
 */
export function wordsToRead(
  rule: ExpectationRule,
  all: readonly ExpectationRule[],
  part: Pick<TakingPart, 'reads'>,
): number {
  if (rule.kind === 'entries' || rule.kind === 'weeklyEntries' || rule.kind === 'prompts')
    return part.reads * rule.need * rule.minWords
  if (rule.kind !== 'reviews' || rule.everyone) return 0
  const draft = all.reduce((sum, r) => sum + (r.kind === 'entries' ? r.need * r.minWords : 0), 0)
  return rule.need * draft
}

/** Minutes still to write for what is missing, for the estimate beside a student's work. */
export function minutesToGo(rule: ExpectationRule, missing: number, pace: Pace = USUAL_PACE): number {
  return asksWords(rule) ? (missing * rule.minWords) / pace.writingWordsPerMinute : 0
}

/**
 * Rules as the load calculates with them: one about prompts asks for as many answers as there are prompts,
 * or for one while none is written.
 */
export const askedInAll = (rules: readonly ExpectationRule[], prompts: number): ExpectationRule[] =>
  rules.map(rule =>
    rule.kind === 'prompts' ? { ...rule, need: Math.min(200, rule.need * Math.max(1, prompts)) } : rule,
  )

type WithWords = Extract<ExpectationRule, { readonly minWords: number }>
const asksWords = (rule: ExpectationRule): rule is WithWords => 'minWords' in rule
