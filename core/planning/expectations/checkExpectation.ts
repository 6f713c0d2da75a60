import { localDay } from '../week'
import type { CountedContribution, ExpectationContext, ExpectationResult, ExpectationRule } from './rule'

/**
 * Checks one rule against a person's contributions to one activity.
 * The earliest contributions that satisfy the rule are taken, so `metAt` is the first moment at which it was met;
 * work after the due time still meets it (lateness is judged apart, from `metAt`).
 *
 * - entries: contributions of the kind's entry type with enough words;
 * - weeklyEntries: in each of the weeks asked about, `need` of them; more in one week do not stand for another;
 * - replies: answers with enough words to `need` different classmates; oneself and staff do not count, a second
 *   answer to the same classmate adds nothing;
 * - reviews: reviews of others' work, or of teammates, with enough words; of oneself, and of samples staff put up, do not count;
 * - prompts: to each of the prompts asked about, `need` entries; more to one do not stand for another;
 * - holds: contributions that link to a source, or came with a picture;
 * - ownPages: pages they claimed on which their versions together have enough words of theirs, met by the version that reached it;
 * - revisions: pages they claimed and saved again after somebody else's comment;
 * - questions: notes in a margin that ask, with enough words; parts: different pages or sections with a note; of a text of
 *   which only some pages are set, notes on the others count for neither of these, nor as entries;
 * - activeDays: local calendar days on which anything was shown.
 *
 * @param contributions shape [n], any order
 * @throws {RangeError} if the rule needs less than one
 */
export function checkExpectation(
  rule: ExpectationRule,
  contributions: readonly CountedContribution[],
  context: ExpectationContext,
): ExpectationResult {
  if (!Number.isInteger(rule.need) || rule.need < 1)
    throw new RangeError('checkExpectation needs a rule that asks for one or more')
  const inTime = [...contributions].sort(
    (a, b) => a.shownAt.getTime() - b.shownAt.getTime() || (a.id < b.id ? -1 : 1),
  )
  const findProgress = (): readonly [counted: readonly CountedContribution[], need: number] => {
    if (rule.kind === 'weeklyEntries') return weekly(rule, inTime, context)
    if (rule.kind === 'prompts') return byPrompt(rule, inTime, context)
    if (rule.kind === 'ownPages') return [grownPages(rule, inTime), rule.need]
    return [firstOfEach(inTime, c => countsAs(rule, c, context)).slice(0, rule.need), rule.need]
  }
  const [counted, need] = findProgress()
  const met = counted.length === need
  return {
    have: counted.length,
    need,
    met,
    metAt: met ? counted[counted.length - 1]!.shownAt : null,
    contributionIds: counted.map(c => c.id),
    missing: need - counted.length,
  }
}

/** What counts in each week, in time order, and how many are asked for in all. */
function weekly(
  rule: ExpectationRule,
  inTime: readonly CountedContribution[],
  context: ExpectationContext,
): [CountedContribution[], number] {
  const weeks = context.weeks ?? []
  if (weeks.length === 0)
    throw new RangeError('checkExpectation needs the weeks that a weekly rule asks about')
  const counted = weeks.flatMap(week =>
    inTime
      .filter(
        c => c.shownAt >= week.startsAt && c.shownAt < week.endsAt && countsAs(rule, c, context) !== null,
      )
      .slice(0, rule.need),
  )
  return [counted.sort((a, b) => a.shownAt.getTime() - b.shownAt.getTime()), rule.need * weeks.length]
}

/** What counts for each prompt, in time order, and how many are asked for in all. */
function byPrompt(
  rule: ExpectationRule,
  inTime: readonly CountedContribution[],
  context: ExpectationContext,
): [CountedContribution[], number] {
  const prompts = context.prompts ?? []
  if (prompts.length === 0)
    throw new RangeError('checkExpectation needs the prompts that a rule about prompts asks about')
  const counted = prompts.flatMap(prompt =>
    inTime.filter(c => c.prompt === prompt && countsAs(rule, c, context) !== null).slice(0, rule.need),
  )
  return [counted.sort((a, b) => a.shownAt.getTime() - b.shownAt.getTime()), rule.need * prompts.length]
}

/** Of each claimed page the version with which its author's words on it became enough, in time order. */
function grownPages(
  rule: Extract<ExpectationRule, { kind: 'ownPages' }>,
  inTime: readonly CountedContribution[],
): CountedContribution[] {
  const words = new Map<string, number>()
  const reached = inTime.filter(c => {
    if (!c.page?.claimed) return false
    const before = words.get(c.page.id)
    const now = (before ?? 0) + c.words
    words.set(c.page.id, now)
    return now >= rule.minWords && (before ?? -1) < rule.minWords
  })
  return firstOfEach(reached, c => c.page!.id).slice(0, rule.need)
}

/** The key under which a contribution counts once, or null when it does not count at all. */
function countsAs(rule: ExpectationRule, c: CountedContribution, context: ExpectationContext): string | null {
  switch (rule.kind) {
    case 'entries':
    case 'weeklyEntries':
    case 'prompts':
      return c.type === context.entryType &&
        c.note?.isSet !== false &&
        (c.words >= rule.minWords || c.notInWords === true)
        ? c.id
        : null
    case 'replies':
      return c.answers &&
        c.answers.isClassmate &&
        c.answers.personId !== context.personId &&
        c.words >= rule.minWords
        ? c.answers.personId
        : null
    case 'reviews':
      return c.type === 'review' &&
        c.answers?.isClassmate === true &&
        c.answers.personId !== context.personId &&
        c.words >= rule.minWords
        ? c.id
        : null
    case 'holds':
      return (rule.what === 'source' ? (c.sources ?? 0) : (c.figures ?? 0)) > 0 ? c.id : null
    case 'revisions':
      return c.page?.claimed && c.page.afterComment ? c.page.id : null
    case 'questions':
      return c.note?.asks && c.note.isSet && c.words >= rule.minWords ? c.id : null
    case 'parts':
      return c.note?.isSet ? String(c.note.part) : null
    case 'ownPages':
      return null // calculated over all versions of a page, see `grownPages`
    case 'activeDays':
      return localDay(c.shownAt, context.timeZone)
  }
}

function firstOfEach<T>(items: readonly T[], keyOf: (item: T) => string | null): T[] {
  const seen = new Set<string>()
  return items.filter(item => {
    const key = keyOf(item)
    if (key === null || seen.has(key)) return false
    seen.add(key)
    return true
  })
}
