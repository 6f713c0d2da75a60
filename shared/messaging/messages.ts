import { z } from 'zod'
import { ACTIVITY_KINDS } from '#core/kinds/kind'

export const LONGEST_MESSAGE = 6000
const words = z
  .string()
  .trim()
  .min(1, 'There are no words here yet. Write a line first.')
  .max(
    LONGEST_MESSAGE,
    `A message has up to ${LONGEST_MESSAGE} characters. Shorten it; what you typed is kept here.`,
  )
const subject = z
  .string()
  .trim()
  .min(1, 'Say in a few words what it is about.')
  .max(160, 'A subject has up to 160 characters.')
const About = z.object({ id: z.uuid(), title: z.string(), kind: z.enum(ACTIVITY_KINDS) }).nullable()

/** As many students as the address of a page holds. */
export const MOST_WRITTEN = 400
/** Drafts are fetched in lots. */
export const DRAFTS_AT_ONCE = 100
export const MessageDraftQuery = z.object({
  activity: z.uuid().optional(),
  to: z
    .string()
    .max(4000)
    .default('')
    .transform(v => v.split(',').filter(Boolean))
    .pipe(z.array(z.uuid()).max(DRAFTS_AT_ONCE)),
})
/** What one begins from: a draft with places, and what stands in them for each. */
export const MessageDraft = z.object({
  subject: z.string(),
  text: z.string(),
  about: About,
  people: z.array(
    z.object({
      id: z.uuid(),
      fullName: z.string(),
      name: z.string(),
      missing: z.string(),
      activity: z.string(),
      due: z.string(),
    }),
  ),
})
export type MessageDraft = z.infer<typeof MessageDraft>

export const SendMessages = z.object({
  key: z.uuid(),
  activityId: z.uuid().nullable(),
  subject,
  text: words,
  people: z
    .array(z.object({ id: z.uuid(), text: words.nullable() }))
    .min(1, 'Choose somebody to write to.')
    .max(1000), // text: written for this one alone
})
export type SendMessages = z.infer<typeof SendMessages>
export const Sent = z.object({ sendingId: z.uuid(), sent: z.number().int() })
export const TakenBack = z.object({ takenBack: z.number().int() })
export const SendingParams = z.object({ seminarId: z.uuid(), sendingId: z.uuid() })
export const ThreadParams = z.object({ seminarId: z.uuid(), threadId: z.uuid() })

const Thread = z.object({
  id: z.uuid(),
  subject: z.string(),
  about: About,
  studentId: z.uuid(),
  student: z.string(),
  initials: z.string(),
  startedBy: z.string(),
  byRule: z.boolean(),
  lastAt: z.iso.datetime(),
  lastWords: z.string(),
  lastIsMine: z.boolean(),
  messages: z.number().int(),
  fresh: z.boolean(),
  waits: z.boolean(), // waits: the student has not been told yet
})
export const ThreadList = z.object({ threads: z.array(Thread), more: z.boolean(), fresh: z.number().int() })
export type ThreadList = z.infer<typeof ThreadList>
export const ThreadListQuery = z.object({ student: z.uuid().optional(), before: z.uuid().optional() })
export const MessageThread = Thread.extend({
  messages: z.array(
    z.object({
      id: z.uuid(),
      author: z.string(),
      isMe: z.boolean(),
      isStaff: z.boolean(),
      text: z.string(),
      at: z.iso.datetime(),
    }),
  ),
  sendingId: z.uuid().nullable(),
  told: z.boolean(),
}).omit({ lastWords: true, lastIsMine: true })
export type MessageThread = z.infer<typeof MessageThread>
export const MessageReply = z.object({ key: z.uuid(), text: words })

/** A standing rule, as it is set. */
export const RuleWrite = z.object({
  activityId: z.uuid().nullable(),
  daysBefore: z.number().int().min(0, 'No fewer than no days before.').max(21, 'Up to 21 days before.'),
  atTime: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'A time is like 18:00.'),
  subject,
  text: words,
})
export type RuleWrite = z.infer<typeof RuleWrite>
export const RuleSwitch = z.object({ on: z.boolean(), version: z.number().int() })
export const RuleParams = z.object({ seminarId: z.uuid(), ruleId: z.uuid() })
const Occasion = z.object({
  activityId: z.uuid(),
  title: z.string(),
  kind: z.enum(ACTIVITY_KINDS),
  at: z.iso.datetime(),
  dueAt: z.iso.datetime(),
  now: z.number().int(),
  names: z.array(z.string()),
  example: z.string(),
})
export const RuleList = z.object({
  rules: z.array(
    RuleWrite.extend({
      id: z.uuid(),
      on: z.boolean(),
      about: z.string().nullable(),
      by: z.string(),
      sent: z.number().int(),
      version: z.number().int(),
      coming: z.array(Occasion),
    }),
  ),
  activities: z.array(z.object({ id: z.uuid(), title: z.string() })),
  mayManage: z.boolean(),
})
export type RuleList = z.infer<typeof RuleList>
export const RuleMade = z.object({ id: z.uuid() })
