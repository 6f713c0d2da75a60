import type { ExpectationRule } from '#core/planning/expectations/rule'
import type { CheckView, ExpectationView } from '#shared/contributing/activity'

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve']
/** Small numbers as a person says them; figures from thirteen on. */
export const inWords = (n: number): string => NUMBERS[n] ?? String(n)
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
export const plural = (n: number, one: string, many = `${one}s`): string => n === 1 ? one : many

/** What a rule asks for, as short as a checklist takes it. */
export function ruleWords(rule: ExpectationRule): string {
  switch (rule.kind) {
    case 'entries': return rule.need === 1 ? `opening post, ${rule.minWords}+ words` : `${rule.need} entries, ${rule.minWords}+ words each`
    case 'replies': return `replies to ${rule.need} different classmates`
    case 'activeDays': return `here on ${rule.need} different days`
  }
}

/** How far it has come, for the figure beside it. */
export function haveWords(rule: ExpectationRule, check: CheckView): string {
  if (rule.kind === 'entries' && rule.need === 1) return check.bestWords > 0 ? String(check.bestWords) : '–'
  return check.met ? String(check.have) : `${check.have} of ${check.need}`
}

/** What is still to do, never blaming: "two replies to go". */
export function toGoWords(expectations: readonly ExpectationView[], checks: readonly CheckView[]): string {
  const parts = expectations.flatMap(({ rule }, i) => {
    const check = checks[i]
    if (!check || check.met) return []
    const n = check.need - check.have
    if (rule.kind === 'entries') return [rule.need === 1 && check.bestWords > 0 ? `your opening post wants ${Math.max(1, rule.minWords - check.bestWords)} more words` : n === 1 ? 'the opening post' : `${inWords(n)} entries to go`]
    return [rule.kind === 'replies' ? `${inWords(n)} ${plural(n, 'reply', 'replies')} to go` : `${inWords(n)} more ${plural(n, 'day')} to take part on`]
  })
  return parts.length > 0 ? parts.join(', ') : 'all that is asked for is in'
}

/** Every single part of the expectations as done or not, for the ring. */
export const ringParts = (checks: readonly CheckView[]): boolean[] => checks.flatMap(c => Array.from({ length: c.need }, (_, i) => i < c.have))

/** "about 20 minutes", "a little over an hour". */
export function minutesWords(minutes: number): string {
  if (minutes < 8) return 'a few minutes'
  if (minutes < 50) return `about ${Math.round(minutes / 5) * 5} minutes`
  if (minutes < 65) return 'about an hour'
  if (minutes < 85) return 'a little over an hour'
  return `about ${(Math.round(minutes / 30) / 2).toLocaleString('en')} hours`
}
