import { z } from 'zod'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import { LONGEST_OPEN_ANSWER } from '#core/closing/questions'

const asked = z
  .string()
  .trim()
  .min(1, 'Put the question in words.')
  .max(400, 'A question has up to 400 characters.')
const label = z.string().trim().max(60, 'A word or two, up to 60 characters.')
export const ClosingQuestionBody = z.discriminatedUnion('kind', [
  z.object({
    id: z.uuid(),
    kind: z.literal('scale'),
    text: asked,
    steps: z
      .number()
      .int()
      .min(3, 'A scale has three steps or more.')
      .max(10, 'A scale has up to ten steps.'),
    low: label,
    high: label,
  }),
  z.object({
    id: z.uuid(),
    kind: z.literal('choice'),
    text: asked,
    options: z
      .array(z.string().trim().min(1, 'Say what can be chosen, or remove the line.').max(160))
      .min(2, 'There are two things to choose from, or more.')
      .max(12, 'Up to twelve things to choose from.'),
    several: z.boolean(),
  }),
  z.object({ id: z.uuid(), kind: z.literal('open'), text: asked }),
])
export type ClosingQuestionBody = z.infer<typeof ClosingQuestionBody>
const Answer = z.union([
  z.number().int(),
  z.array(z.number().int()).max(12),
  z.string().max(LONGEST_OPEN_ANSWER, `An answer has up to ${LONGEST_OPEN_ANSWER} characters.`),
])
export const ClosingAnswersBody = z.object({ answers: z.record(z.uuid(), Answer) })

/** Of which round; the last unless said. */
export const ClosingQuery = z.object({ round: z.coerce.number().int().min(1).max(1000).optional() })

export const ClosingSet = z.object({
  round: z.number().int().min(1).max(1000).default(1), // the one after the last begins a further round
  questions: z
    .array(ClosingQuestionBody)
    .min(1, 'Put one question at least.')
    .max(12, 'Up to twelve questions: more are not answered with care.'),
  named: z.boolean(),
  opensAt: z.iso.datetime(),
  closesAt: z.iso.datetime(),
  baseVersion: z.number().int().nullable(),
})
export type ClosingSet = z.infer<typeof ClosingSet>
export type ClosingWrite = Omit<ClosingSet, 'baseVersion'>
export const CLOSING_STATES = ['none', 'planned', 'open', 'closed'] as const

const count = z.number().int().min(0)
const Result = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('scale'),
    answered: count,
    counts: z.array(count),
    mean: z.number().nullable(),
    median: z.number().nullable(),
  }),
  z.object({ kind: z.literal('choice'), answered: count, counts: z.array(count) }),
  z.object({
    kind: z.literal('open'),
    answered: count,
    answers: z.array(z.string()),
    words: z.array(z.object({ word: z.string(), answers: count })),
  }),
])
export type ClosingResult = z.infer<typeof Result>
export const ClosingView = z.object({
  activity: z.object({
    id: z.uuid(),
    title: z.string(),
    kind: z.enum(ACTIVITY_KINDS),
    closesAt: z.iso.datetime(),
  }),
  state: z.enum(CLOSING_STATES),
  /** All that were asked one after another, for staff. */
  rounds: z.array(z.object({ number: count, state: z.enum(CLOSING_STATES), closesAt: z.iso.datetime() })),
  round: z
    .object({
      number: count,
      questions: z.array(ClosingQuestionBody),
      named: z.boolean(),
      opensAt: z.iso.datetime(),
      closesAt: z.iso.datetime(),
      version: z.number().int(),
    })
    .nullable(),
  // a student's; their answers only where names are kept
  mine: z.object({ answered: z.boolean(), answers: z.record(z.uuid(), Answer) }).nullable(),
  staff: z
    .object({
      asked: count,
      answered: count,
      mayChange: z.boolean(),
      isFinal: z.boolean(), // closed, and not to be opened again: answers without names may have been read
      mayAskAgain: z.boolean(), // a further round
      results: z.array(Result).nullable(),
      why: z.string().nullable(), // why there are none to see yet
      people: z.array(z.object({ id: z.uuid(), name: z.string(), answers: z.record(z.uuid(), Answer) })), // where names are kept
    })
    .nullable(),
})
export type ClosingView = z.infer<typeof ClosingView>

export const ClosingRemoved = z.object({ removed: z.literal(true) })
