import { BEGIN_ACTS } from '#core/planning/beginNow'
import { z } from 'zod'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import { TEXT_FORMS } from '#core/kinds/reading/reading'
import { LEFT_BEHIND } from '#core/planning/leftBehind'
import { PHASES } from '#core/planning/schedule'
import { SCALES } from '#core/planning/scale'
import { BriefDoc } from '../contributing/richDoc'
import { Rule, RubricView, TalkSettingsBody } from '../contributing/activity'
import { LexiconSettingsBody } from '#shared/kinds/lexicon/settings'
import { ReadingSettingsBody } from '#shared/kinds/reading/settings'
import { ReviewSettingsBody } from '#shared/kinds/review/settings'
import { WikiSettingsBody } from '#shared/kinds/wiki/wiki'
import { CombineRuleBody } from '../marking/combine'
import { StandingCounts } from './plan'

const when = z.iso.datetime({ offset: true }).transform(at => new Date(at).toISOString())
const ids = z.array(z.uuid()).max(2000)
export const AudienceBody = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('everyone') }),
  z.object({ kind: z.literal('sections'), sectionIds: ids }),
  z.object({ kind: z.literal('groups'), groupPlanId: z.uuid(), groupIds: ids }),
  z.object({ kind: z.literal('people'), enrolmentIds: ids }),
])
export type AudienceBody = z.infer<typeof AudienceBody>
export const LateRuleBody = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  z.object({
    kind: z.literal('perDay'),
    graceMinutes: z.number().int().min(0).max(100_000),
    percentPerDay: z.number().min(0).max(100),
    floorPercent: z.number().min(0).max(100),
  }),
  z.object({
    kind: z.literal('cap'),
    graceMinutes: z.number().int().min(0).max(100_000),
    capPercent: z.number().min(0).max(100),
  }),
])
export const PhaseBody = z.object({ name: z.enum(PHASES), startsAt: when, endsAt: when })
export const ScheduleBody = z.object({ opensAt: when, phases: z.array(PhaseBody).min(1).max(12) })

/** Everything an instructor sets about an activity. */
export const ActivityBody = TalkSettingsBody.extend({
  kind: z.enum(ACTIVITY_KINDS),
  title: z.string().trim().min(1, 'Give the activity a title.').max(200),
  brief: BriefDoc,
  starter: BriefDoc.nullable(),
  spokenFileId: z.uuid().nullable(),
  unitId: z.uuid().nullable(),
  categoryId: z.uuid().nullable(),
  scale: z.enum(SCALES),
  gradingScaleId: z.uuid().nullable(),
  points: z.number().int().min(0).max(1_000_000).nullable(), // hundredths; null: not marked
  passPercent: z.number().int().min(0).max(100).nullable(),
  practice: z.boolean(),
  groupMark: z.boolean(),
  returnTogether: z.boolean(),
  rubricVersionId: z.uuid().nullable(),
  lateRule: LateRuleBody,
  combine: CombineRuleBody.nullable(), // contributions are marked one by one, and these make the mark
  audience: AudienceBody,
  jointSeminarIds: z.array(z.uuid()).max(12),
  // each of one kind alone: of another kind it is as usual, and what is set of it is not kept
  review: ReviewSettingsBody,
  wiki: WikiSettingsBody,
  lexicon: LexiconSettingsBody,
  reading: ReadingSettingsBody,
  writeFirst: z.boolean(),
  hiddenUntil: when.nullable(),
  editMinutes: z.number().int().min(0).max(100_000),
  rests: z.array(z.number().int().min(1).max(40)).max(40),
  opensAt: when,
  phases: z.array(PhaseBody).min(1).max(12),
  rules: z
    .array(z.object({ id: z.uuid(), rule: Rule, needed: z.boolean() }))
    .max(12, 'Twelve expectations are the most.'),
  prompts: z.array(z.object({ id: z.uuid(), doc: BriefDoc, releaseAt: when })).max(60),
})
export type ActivityBody = z.infer<typeof ActivityBody>
export type ActivityField = keyof ActivityBody

const Checked = z.object({
  id: z.uuid(),
  kind: z.enum(ACTIVITY_KINDS),
  title: z.string(),
  state: z.enum(['draft', 'scheduled', 'published']),
  opensAt: z.iso.datetime(),
  phases: z.array(z.object({ name: z.enum(PHASES), startsAt: z.iso.datetime(), endsAt: z.iso.datetime() })),
  rules: z.array(Rule),
  seminar: z.string().nullable(), // code of the other seminar it belongs to
})
export const ComposerView = z.object({
  id: z.uuid(),
  seminarId: z.uuid(),
  version: z.number().int(),
  state: z.enum(['draft', 'scheduled', 'published']),
  locked: z.boolean(),
  isTemplate: z.boolean(),
  savedBy: z.string().nullable(),
  body: ActivityBody.extend({
    brief: z.unknown(),
    starter: z.unknown(),
    prompts: z.array(z.object({ id: z.uuid(), doc: z.unknown(), releaseAt: z.iso.datetime() })),
  }),
  questions: z.number().int(), // threads that staff have opened for all to answer
  counts: StandingCounts,
  contributions: z.number().int(),
  marks: z.number().int(),
  extensions: z.array(
    z.object({ enrolmentId: z.uuid(), name: z.string(), dueAt: z.iso.datetime(), reason: z.string() }),
  ),
  /** What can be chosen. */
  units: z.array(
    z.object({ id: z.uuid(), title: z.string(), fromWeek: z.number().int(), toWeek: z.number().int() }),
  ),
  categories: z.array(z.object({ id: z.uuid(), title: z.string(), weightPercent: z.number().int() })),
  scales: z.array(z.object({ id: z.uuid(), title: z.string() })),
  rubrics: z.array(RubricView),
  sections: z.array(z.object({ id: z.uuid(), title: z.string(), people: z.number().int() })),
  groupPlans: z.array(
    z.object({
      id: z.uuid(),
      title: z.string(),
      groups: z.array(z.object({ id: z.uuid(), title: z.string(), memberIds: z.array(z.uuid()) })),
    }),
  ),
  people: z.array(z.object({ id: z.uuid(), name: z.string(), sectionId: z.uuid().nullable() })),
  seminars: z.array(
    z.object({ id: z.uuid(), code: z.string(), title: z.string(), people: z.number().int() }),
  ), // others that can take part: those the instructor also instructs
  // marked activities of the seminar, whose group mark teammates' scores can share
  shareable: z.array(z.object({ id: z.uuid(), title: z.string() })),
  earlier: z.array(Checked), // the same instructor's other activities, for comparing
  spoken: z.object({ url: z.string(), type: z.string() }).nullable(),
  texts: z.array(
    z.object({ id: z.uuid(), title: z.string(), form: z.enum(TEXT_FORMS), labels: z.array(z.string()) }),
  ), // of the library, with the labels of their pages or sections
  pace: z.object({
    readingWordsPerMinute: z.number(),
    writingWordsPerMinute: z.number(),
    markingMinutesPerStudent: z.number(),
  }),
})
export type ComposerView = z.infer<typeof ComposerView>

export const ActivityMake = z.object({
  id: z.uuid(),
  kind: z.enum(ACTIVITY_KINDS),
  week: z.number().int().min(1).max(40),
  unitId: z.uuid().nullable(),
  templateId: z.uuid().nullable(),
})
export const ActivityMade = z.object({ id: z.uuid() })
export const CopyMade = ActivityMade.extend({ left: z.array(z.enum(LEFT_BEHIND)) })
export const ActivityPatch = z.object({
  key: z.uuid(),
  baseVersion: z.number().int(),
  change: ActivityBody.partial(),
  tell: z.boolean(),
})
export type ActivityPatch = z.infer<typeof ActivityPatch>
export const EffectAsk = z.object({ change: ActivityBody.partial() })
/** What a change would do, before it is done. */
export const EffectView = z.object({
  moves: z.array(z.object({ from: z.string(), to: z.string(), people: z.number().int() })), // students whose standing would change
  leaving: z.array(z.string()), // who would no longer take part though they have written
  joining: z.number().int(),
  // by a rule that is changed: what it takes at the most, of the maximum
  late: z.array(z.object({ name: z.string(), minutes: z.number().int(), percent: z.number() })),
  recalculated: z.number().int(), // marks not returned yet whose points change
  kept: z.number().int(), // contributions, all of which stay
  shuts: z.boolean(), // it is open now and would not be until its new opening
  renamed: z.boolean(), // the kind changes: posts become entries and the like
})
export type EffectView = z.infer<typeof EffectView>
export const PublishWrite = z.object({
  key: z.uuid(),
  baseVersion: z.number().int(),
  opens: z.union([z.literal('now'), when]),
  tell: z.boolean(),
})
export const UnpublishWrite = z.object({ key: z.uuid(), baseVersion: z.number().int() })
export const VersionAnswer = z.object({
  version: z.number().int(),
  state: z.enum(['draft', 'scheduled', 'published']),
})
export const ScheduleWrite = ScheduleBody.extend({
  key: z.uuid(),
  baseVersion: z.number().int(),
  tell: z.boolean().default(false),
})
/** Ends hand-in, or begins reviewing, now instead of at its time. */
export const BeginWrite = z.object({ key: z.uuid(), act: z.enum(BEGIN_ACTS), tell: z.boolean() })
export const BegunAnswer = VersionAnswer.extend({ before: ScheduleBody })
export const CopyWrite = z.object({
  id: z.uuid(),
  seminarId: z.uuid(),
  week: z.number().int().min(1).max(60).nullable(),
  asTemplate: z.boolean(),
})
export const LockWrite = z.object({ locked: z.boolean() })
export const OrderWrite = z.object({
  key: z.uuid(),
  activityId: z.uuid(),
  unitId: z.uuid().nullable(),
  beforeId: z.uuid().nullable(),
})
export const ExtensionParams = z.object({ activityId: z.uuid(), enrolmentId: z.uuid() })
export const ExtensionWrite = z.object({
  dueAt: when,
  reason: z.string().trim().min(1, 'Write why, for those who mark.').max(500),
})
