import { z } from 'zod'
import { ACTIVITY_KINDS } from '#core/kinds/kind'

const week = z.coerce.number().int().min(1).max(60)
const several = z
  .string()
  .transform(ids => ids.split(','))
  .pipe(z.array(z.uuid()).min(1).max(60))
/** What is looked at: everything, one activity, several, or all of a kind; some weeks of the term; one section or group. */
export const VoicesQuery = z.object({
  activity: z.uuid().optional(),
  among: several.optional(),
  kind: z.enum(ACTIVITY_KINDS).optional(),
  from: week.optional(),
  to: week.optional(),
  section: z.uuid().optional(),
  group: z.uuid().optional(),
})
export type VoicesQuery = z.infer<typeof VoicesQuery>

const count = z.number().int().min(0)
const share = z.number().min(0).max(1).nullable()
export const VoiceView = z.object({
  id: z.uuid(),
  name: z.string(),
  givenName: z.string(),
  familyName: z.string(),
  initials: z.string(),
  contributions: count,
  words: count,
  wordsEach: z.number().nullable(),
  sentenceLength: z.number().nullable(),
  ease: z.number().nullable(),
  daysActive: count,
  firstAgainstDue: z.number().nullable(),
  medianToAnswer: z.number().nullable(), // milliseconds
  depth: count.nullable(),
  answered: count,
  answeredBy: count,
  answersGot: count,
  shareAnswered: share,
  reciprocity: share,
  before: z.object({ contributions: count, words: count }), // in the weeks before
  between: z.number(),
  community: count,
  met: count,
  asked: count, // expectations, of one activity
  quiet: z.string().nullable(), // of somebody silent: what they did do
  fromMe: z.object({
    acts: count,
    lastAt: z.iso.datetime().nullable(),
    gapDays: count,
    longestGapDays: count,
    weeks: z.array(count),
  }), // substantive contact by the one who looks
})
export type VoiceView = z.infer<typeof VoiceView>
const Heard = z.object({
  id: z.uuid(),
  activityId: z.uuid(),
  authorId: z.uuid(),
  words: z.string(),
  at: z.iso.datetime(),
})

export const VoicesView = z.object({
  activity: z
    .object({
      id: z.uuid(),
      title: z.string(),
      kind: z.enum(ACTIVITY_KINDS),
      from: z.iso.datetime(),
      to: z.iso.datetime(),
    })
    .nullable(),
  activities: z.array(z.object({ id: z.uuid(), title: z.string(), kind: z.enum(ACTIVITY_KINDS) })),
  sections: z.array(z.object({ id: z.uuid(), title: z.string() })),
  groups: z.array(z.object({ id: z.uuid(), title: z.string() })),
  from: count,
  to: count, // weeks of the term that are looked at
  all: z.object({
    contributions: count,
    words: count,
    spoke: count,
    gini: z.number().nullable(),
    haveHalf: count,
    shareAnswered: share,
    reciprocity: share,
    staffShare: share,
  }),
  people: z.array(VoiceView),
  // of those who teach, who spoke, and the one who looks
  staff: z.array(z.object({ id: z.uuid(), name: z.string(), initials: z.string(), isMe: z.boolean() })),
  edges: z.array(z.object({ from: z.uuid(), to: z.uuid(), times: count })),
  days: z.array(z.object({ day: z.string(), count, hours: z.array(count).length(24) })),
  dues: z.array(z.object({ day: z.string(), label: z.string() })),
  mostAnswered: z.array(Heard.extend({ answers: count, people: count })),
  unanswered: z.array(Heard),
  gapLimit: count, // days without a word from which a student is pointed out
})
export type VoicesView = z.infer<typeof VoicesView>
