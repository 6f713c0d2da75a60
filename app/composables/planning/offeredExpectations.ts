import { KINDS } from '#core/contributing/kinds'
import { answerWord, entryWord } from '#core/planning/expectationWords'
import type { ExpectationRule } from '#core/planning/expectations/rule'
import type { PhaseName } from '#core/planning/schedule'
import type { ActivityBody } from '#shared/planning/composer'

export interface OfferedExpectation {
  readonly words: string
  readonly rule: ExpectationRule
}

/** Ready-made expectations for the kind of an activity, of which none is in use yet. */
export function offeredExpectations(body: ActivityBody): readonly OfferedExpectation[] {
  const kind = KINDS[body.kind]
  const working = kind.workingPhases.filter(name => body.phases.some(p => p.name === name))
  const classAnswers = kind.answerType !== null && kind.readBy === 'class'

  const first = working[0] ?? 'write'
  const last = working.at(-1) ?? first
  const all: OfferedExpectation[] = [
    {
      words: `${entryWord(body.kind, 1)} of 200 words`,
      rule: { kind: 'entries', need: 1, minWords: 200, due: first },
    },
    ...(['journal', 'blog', 'discussion'].includes(body.kind)
      ? [
          {
            words: 'an entry every week',
            rule: { kind: 'weeklyEntries' as const, need: 1, minWords: 150, due: first },
          },
        ]
      : []),
    ...(classAnswers
      ? [
          {
            words: `${answerWord(body.kind, 3)} to three classmates`,
            rule: { kind: 'replies' as const, need: 3, minWords: 60, due: last },
          },
        ]
      : []),
    ...(body.kind === 'journal' || (body.kind === 'discussion' && body.threads === 'staff')
      ? [
          {
            words: `every ${body.kind === 'journal' ? 'prompt' : 'question'} answered`,
            rule: { kind: 'prompts' as const, need: 1, minWords: 60, due: first },
          },
        ]
      : []),
    ...(body.kind === 'exitNote'
      ? []
      : [
          {
            words: 'with a linked source',
            rule: { kind: 'holds' as const, what: 'source' as const, need: 1, due: last },
          },
          {
            words: 'with a picture',
            rule: { kind: 'holds' as const, what: 'figure' as const, need: 1, due: last },
          },
        ]),
    ...(body.kind === 'review'
      ? [
          {
            words: `${body.review.each} reviews of others`,
            rule: { kind: 'reviews' as const, need: body.review.each, minWords: 60, due: last },
          },
        ]
      : []),
    ...(body.kind === 'wiki'
      ? [
          {
            words: 'a page of one’s own',
            rule: { kind: 'ownPages' as const, need: 1, minWords: 300, due: first },
          },
          { words: 'revised after comments', rule: { kind: 'revisions' as const, need: 1, due: last } },
        ]
      : []),
    ...(body.kind === 'reading'
      ? [
          { words: 'two questions', rule: { kind: 'questions' as const, need: 2, minWords: 8, due: first } },
          { words: 'on three different pages', rule: { kind: 'parts' as const, need: 3, due: first } },
        ]
      : []),
    { words: 'here on two different days', rule: { kind: 'activeDays', need: 2, due: last } },
  ]
  return all.filter(
    offer =>
      !body.rules.some(
        r =>
          r.rule.kind === offer.rule.kind &&
          !(r.rule.kind === 'holds' && offer.rule.kind === 'holds' && r.rule.what !== offer.rule.what),
      ),
  )
}

/** "writing", "responding": what is done in a phase. */
export function phaseWord(w: PhaseName) {
  if (w === 'write') return 'writing'
  if (w === 'respond') return 'responding'
  if (w === 'review') return 'reviewing'
  return 'revising'
}
