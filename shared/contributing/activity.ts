import { z } from 'zod'
import { CONTRIBUTION_TYPES } from '#core/contributing/contribution'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import { STANDINGS } from '#core/standing/standing'
import { APART, ATTACHABLE } from '#core/contributing/talkSettings'
import { PHASES } from '#core/planning/schedule'
import { SCALES } from '#core/planning/scale'
import { LexiconSettingsBody } from '#shared/kinds/lexicon/settings'
import { ReviewSettingsBody } from '#shared/kinds/review/settings'
import { CombineRuleBody } from '../marking/combine'

const need = z.number().int().min(1, 'Ask for at least one.').max(200, 'That is more than 200.')
const minWords = z.number().int().min(0).max(10_000, 'That is more than 10,000 words.')
export const Rule = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('entries'), need, minWords, due: z.enum(PHASES) }),
  z.object({ kind: z.literal('weeklyEntries'), need, minWords, due: z.enum(PHASES) }),
  z.object({ kind: z.literal('replies'), need, minWords, due: z.enum(PHASES) }),
  z.object({ kind: z.literal('prompts'), need, minWords, due: z.enum(PHASES) }),
  z.object({
    kind: z.literal('reviews'),
    need,
    minWords,
    due: z.enum(PHASES),
    everyone: z.boolean().optional(), // of everyone in one's group
  }),
  z.object({ kind: z.literal('holds'), what: z.enum(['source', 'figure']), need, due: z.enum(PHASES) }),
  z.object({ kind: z.literal('ownPages'), need, minWords, due: z.enum(PHASES) }),
  z.object({ kind: z.literal('revisions'), need, due: z.enum(PHASES) }),
  z.object({ kind: z.literal('questions'), need, minWords, due: z.enum(PHASES) }),
  z.object({ kind: z.literal('parts'), need, due: z.enum(PHASES) }),
  z.object({ kind: z.literal('activeDays'), need, due: z.enum(PHASES) }),
])

/** See `TalkSettings`. */
export const TalkSettingsBody = z.object({
  threads: z.enum(['everyone', 'staff']),
  apart: z.enum(APART),
  replies: z.enum(['any', 'top']),
  namesHidden: z.boolean(),
  approval: z.boolean(),
  withdrawMinutes: z.number().int().min(0).max(100_000),
  attach: z.object({
    most: z.number().int().min(0).max(20),
    megabytes: z.number().int().min(1).max(20),
    types: z.array(z.enum(ATTACHABLE)),
  }),
  opening: z.enum(['staff', 'author', 'class']),
  layout: z.enum(['stream', 'own']),
  indexBy: z.enum(['week', 'month']),
})
export type TalkBody = z.infer<typeof TalkSettingsBody>

export const ExpectationView = z.object({
  id: z.uuid(),
  rule: Rule,
  dueAt: z.iso.datetime(), // the reader's own, extension counted
})
export type ExpectationView = z.infer<typeof ExpectationView>

/** One expectation checked against a person's record. */
export const CheckView = z.object({
  expectationId: z.uuid(),
  have: z.number().int(),
  need: z.number().int(),
  met: z.boolean(),
  metAt: z.iso.datetime().nullable(),
  late: z.boolean(), // met after the person's own due time
  toGoNow: z.number().int(), // how many are missing of what is asked for up to now: of a weekly rule, this week's and earlier ones
  bestWords: z.number().int(), // longest contribution of the type asked for, so that "180 of 200 words" can be said
})
export type CheckView = z.infer<typeof CheckView>

export const RubricView = z.object({
  id: z.uuid(),
  versionId: z.uuid(),
  title: z.string(),
  version: z.number().int(),
  criteria: z.array(
    z.object({
      id: z.uuid(),
      title: z.string(),
      max: z.number().int(),
      weight: z.number().int(),
      scope: z.enum(['own', 'group']),
      outcomeIds: z.array(z.uuid()),
      suggestFrom: z.enum(['timeliness']).nullable(),
      levels: z.array(
        z.object({
          id: z.uuid(),
          title: z.string(),
          points: z.number().int(),
          pointsFrom: z.number().int().nullable(),
          descriptor: z.string(),
        }),
      ),
    }),
  ),
})
export type RubricView = z.infer<typeof RubricView>

/** An activity as its page shows it to one reader. */
export const ActivityView = z.object({
  id: z.uuid(),
  seminarId: z.uuid(),
  kind: z.enum(ACTIVITY_KINDS),
  title: z.string(),
  summary: z.string(),
  briefHtml: z.string(),
  state: z.enum(['draft', 'scheduled', 'published']),
  opensAt: z.iso.datetime(),
  closesAt: z.iso.datetime(),
  phases: z.array(z.object({ name: z.enum(PHASES), startsAt: z.iso.datetime(), endsAt: z.iso.datetime() })),
  review: ReviewSettingsBody.nullable(), // of a peer review
  lexicon: LexiconSettingsBody.nullable(), // of a lexicon
  writeFirst: z.boolean(),
  editMinutes: z.number().int(),
  points: z.number().int().nullable(),
  pointStep: z.number().int(), // hundredths a mark is rounded to
  scale: z.enum(SCALES),
  combine: CombineRuleBody.nullable(), // to staff alone: contributions are marked one by one
  practice: z.boolean(),
  passPercent: z.number().int().nullable(),
  hiddenUntil: z.iso.datetime().nullable(), // classmates' contributions stay hidden until then
  starterHtml: z.string().nullable(),
  spoken: z.object({ url: z.string(), type: z.string() }).nullable(), // the brief as the instructor says it
  talk: TalkSettingsBody,
  joint: z.array(z.string()), // codes of the other seminars that take part
  prompts: z.array(
    z.object({ id: z.uuid(), number: z.number().int(), html: z.string(), releaseAt: z.iso.datetime() }),
  ), // released ones
  rests: z.array(z.number().int()), // weeks of the term in which nothing is asked for
  category: z.object({ title: z.string(), weightPercent: z.number().int() }).nullable(),
  expectations: z.array(ExpectationView),
  rubric: RubricView.nullable(),
  standing: z.enum(STANDINGS).nullable(), // the reader's own; null for those who take no part
  // closing questions, as the reader stands to them; not open yet, they are known to staff alone
  closing: z.enum(['none', 'planned', 'open', 'answered', 'closed']),
  open: z.boolean(), // contributions are taken
})
export type ActivityView = z.infer<typeof ActivityView>

export const EntryType = z.enum(CONTRIBUTION_TYPES)
