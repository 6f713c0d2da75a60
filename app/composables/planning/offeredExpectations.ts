import { KINDS } from '#core/kinds'
import { answerWord, entryWord } from '#core/planning/expectationWords'
import type { ExpectationRule } from '#core/planning/expectations/rule'
import type { PhaseName } from '#core/planning/schedule'
import type { ActivityBody } from '#shared/planning/composer'

export interface OfferedExpectation {
  readonly words: string
  readonly rule: ExpectationRule
}

/** How each sort of expectation is offered; `first` and `last` are phases of work. */
const OFFERS: Readonly<
  Record<
    ExpectationRule['kind'],
    (body: ActivityBody, first: PhaseName, last: PhaseName) => OfferedExpectation[]
  >
> = {
  entries: ({ kind }, due) => [
    { words: `${entryWord(kind, 1)} of 200 words`, rule: { kind: 'entries', need: 1, minWords: 200, due } },
  ],
  weeklyEntries: (_, due) => [
    { words: 'an entry every week', rule: { kind: 'weeklyEntries', need: 1, minWords: 150, due } },
  ],
  replies: ({ kind }, _, due) => [
    {
      words: `${answerWord(kind, 3)} to three classmates`,
      rule: { kind: 'replies', need: 3, minWords: 60, due },
    },
  ],
  prompts: ({ kind }, due) => [
    {
      words: `every ${KINDS[kind].promptWord} answered`,
      rule: { kind: 'prompts', need: 1, minWords: 60, due },
    },
  ],
  holds: (_, __, due) => [
    { words: 'with a linked source', rule: { kind: 'holds', what: 'source', need: 1, due } },
    { words: 'with a picture', rule: { kind: 'holds', what: 'figure', need: 1, due } },
  ],
  reviews: ({ review }, _, due) => [
    {
      words: `${review.each} reviews of others`,
      rule: { kind: 'reviews', need: review.each, minWords: 60, due },
    },
  ],
  ownPages: (_, due) => [
    { words: 'a page of one’s own', rule: { kind: 'ownPages', need: 1, minWords: 300, due } },
  ],
  revisions: (_, __, due) => [{ words: 'revised after comments', rule: { kind: 'revisions', need: 1, due } }],
  questions: (_, due) => [{ words: 'two questions', rule: { kind: 'questions', need: 2, minWords: 8, due } }],
  parts: (_, due) => [{ words: 'on three different pages', rule: { kind: 'parts', need: 3, due } }],
  activeDays: (_, __, due) => [
    { words: 'here on two different days', rule: { kind: 'activeDays', need: 2, due } },
  ],
}

/** Ready-made expectations for the kind of an activity, of which none is in use yet. */
export function offeredExpectations(body: ActivityBody): readonly OfferedExpectation[] {
  const { workingPhases, offers } = KINDS[body.kind]
  const working = workingPhases.filter(name => body.phases.some(p => p.name === name))
  const first = working[0] ?? 'write'
  const last = working.at(-1) ?? first
  return offers(body)
    .flatMap(kind => OFFERS[kind](body, first, last))
    .filter(offer => !body.rules.some(({ rule }) => isSame(rule, offer.rule)))
}

/** Whether two rules ask for the same, however much of it. */
const isSame = (a: ExpectationRule, b: ExpectationRule): boolean =>
  a.kind === b.kind && !(a.kind === 'holds' && b.kind === 'holds' && a.what !== b.what)

/** "writing", "responding": what is done in a phase. */
export function phaseWord(w: PhaseName) {
  if (w === 'write') return 'writing'
  if (w === 'respond') return 'responding'
  if (w === 'review') return 'reviewing'
  return 'revising'
}
