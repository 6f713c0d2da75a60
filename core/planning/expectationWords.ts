import { inWords, plural } from '../language'
import { KINDS } from '#core/kinds'
import type { ActivityKind } from '#core/kinds/kind'
import type { ExpectationRule } from './expectations/rule'

/** How far somebody has come with one thing that is asked for. */
interface Check {
  readonly have: number
  readonly need: number
  readonly met: boolean
  readonly toGoNow: number
  readonly bestWords: number
}

/** What one entry of a kind is called, and what answers it. */
export const entryWord = (kind: ActivityKind, n: number): string => KINDS[kind].entryWord[n === 1 ? 0 : 1]
export const answerWord = (kind: ActivityKind, n: number): string => KINDS[kind].answerWord[n === 1 ? 0 : 1]
const ofWords = (minWords: number, each: boolean): string =>
  minWords > 0 ? `, ${minWords}+ words${each ? ' each' : ''}` : ''

/** What a rule asks for, as short as a checklist takes it. */
export function ruleWords(rule: ExpectationRule, kind: ActivityKind): string {
  switch (rule.kind) {
    case 'entries':
      return `${rule.need === 1 ? '' : `${rule.need} `}${entryWord(kind, rule.need)}${ofWords(rule.minWords, rule.need > 1)}`
    case 'weeklyEntries':
      return `${rule.need === 1 ? 'an entry' : `${rule.need} entries`} a week${ofWords(rule.minWords, rule.need > 1)}`
    case 'replies':
      return `${answerWord(kind, rule.need)} to ${rule.need} different ${plural(rule.need, 'classmate')}`
    case 'reviews':
      if (rule.everyone) return `a review of everyone in the group${ofWords(rule.minWords, true)}`
      return `${rule.need} ${plural(rule.need, 'review')}${ofWords(rule.minWords, rule.need > 1)}`
    case 'prompts':
      return `every question answered${ofWords(rule.minWords, true)}`
    case 'holds':
      return `${rule.need === 1 ? 'one' : inWords(rule.need)} with a ${rule.what === 'source' ? 'linked source' : 'picture'}`
    case 'ownPages':
      return `${rule.need === 1 ? 'a page of your own' : `${rule.need} pages of your own`}${ofWords(rule.minWords, rule.need > 1)}`
    case 'revisions':
      return rule.need === 1
        ? 'your page revised after comments'
        : `${rule.need} pages revised after comments`
    case 'questions':
      return `${rule.need === 1 ? 'a question' : `${rule.need} questions`}${ofWords(rule.minWords, rule.need > 1)}`
    case 'parts':
      return `on at least ${rule.need} different ${plural(rule.need, 'page')}`
    case 'activeDays':
      return `here on ${rule.need} different ${plural(rule.need, 'day')}`
  }
}

/** How far it has come, for the figure beside it. */
export function haveWords(rule: ExpectationRule, check: Check): string {
  if (rule.kind === 'entries' && rule.need === 1) return check.bestWords > 0 ? String(check.bestWords) : '–'
  return check.met ? String(check.have) : `${check.have} of ${check.need}`
}

/** What is still to do, never blaming: "two replies to go". */
export function toGoWords(
  expectations: ReadonlyArray<{ readonly rule: ExpectationRule }>,
  checks: readonly Check[],
  kind: ActivityKind,
): string {
  const parts = expectations.flatMap(({ rule }, i) => {
    const check = checks[i]
    if (!check || check.met || check.toGoNow === 0) return []
    const n = check.toGoNow
    switch (rule.kind) {
      case 'entries':
        const toGoWords = () => {
          if (rule.need === 1 && check.bestWords > 0)
            return `your ${entryWord(kind, 1)} wants ${Math.max(1, rule.minWords - check.bestWords)} more words`
          if (rule.need === 1) return `the ${entryWord(kind, 1)}`
          return `${inWords(n)} ${entryWord(kind, n)} to go`
        }
        return [toGoWords()]
      case 'weeklyEntries':
        return [
          n <= rule.need
            ? `this week’s ${n === 1 ? 'entry' : `${inWords(n)} entries`}`
            : `${inWords(n)} entries to go, of this week and before`,
        ]
      case 'replies':
        return [`${inWords(n)} ${answerWord(kind, n)} to go`]
      case 'reviews':
        return [`${inWords(n)} ${plural(n, 'review')} to go`]
      case 'prompts':
        return [`${inWords(n)} ${plural(n, 'question')} to answer`]
      case 'holds':
        return [`${inWords(n)} with a ${rule.what === 'source' ? 'linked source' : 'picture'} to go`]
      case 'ownPages':
        return [n === 1 ? 'a page to claim and write' : `${inWords(n)} pages to claim and write`]
      case 'revisions':
        return [
          n === 1
            ? 'a page to revise after its comments'
            : `${inWords(n)} pages to revise after their comments`,
        ]
      case 'questions':
        return [`${inWords(n)} ${plural(n, 'question')} to put`]
      case 'parts':
        return [n === 1 ? 'one more page to write on' : `${inWords(n)} more pages to write on`]
      case 'activeDays':
        return [`${inWords(n)} more ${plural(n, 'day')} to take part on`]
    }
  })
  if (parts.length > 0) return parts.join(', ')
  if (checks.some(c => !c.met)) return 'all that is asked for up to now is in'
  return 'all that is asked for is in'
}

/** Every single part of the expectations as done or not, for the ring. */
export const ringParts = (checks: ReadonlyArray<Pick<Check, 'have' | 'need'>>): boolean[] =>
  checks.flatMap(c => Array.from({ length: c.need }, (_, i) => i < c.have))

/** "about 20 minutes", "a little over an hour". */
export function minutesWords(minutes: number): string {
  if (minutes < 8) return 'a few minutes'
  if (minutes < 50) return `about ${Math.round(minutes / 5) * 5} minutes`
  if (minutes < 65) return 'about an hour'
  if (minutes < 85) return 'a little over an hour'
  return `about ${(Math.round(minutes / 30) / 2).toLocaleString('en')} hours`
}
