import { z } from 'zod'
import { ACT_KINDS } from '#core/voices/presence'

/** Whose contact is looked at: one of those who teach, or all of them together; whoever asks unless said. */
export const PresenceQuery = z.object({ by: z.union([z.uuid(), z.literal('all')]).optional() })
export type PresenceQuery = z.infer<typeof PresenceQuery>
export const PresenceLogQuery = PresenceQuery.extend({ as: z.enum(['csv', 'pdf']) })
export const PresenceActsQuery = PresenceQuery.extend({ student: z.uuid() })

const count = z.number().int().min(0)
export const PresenceView = z.object({
  by: z.union([z.uuid(), z.literal('all')]),
  teachers: z.array(z.object({ id: z.uuid(), name: z.string(), isMe: z.boolean() })),
  gapLimit: count,
  weeks: z.array(z.object({ number: count, firstDay: z.string(), isBreak: z.boolean() })), // of the term, up to now
  students: z.array(
    z.object({
      id: z.uuid(),
      name: z.string(),
      givenName: z.string(),
      section: z.string().nullable(),
      acts: count,
      nods: count,
      lastAt: z.iso.datetime().nullable(),
      gapDays: count,
      longestGapDays: count,
      weeks: z.array(count),
    }),
  ), // nods: replies too short to count
})
export type PresenceView = z.infer<typeof PresenceView>

export const PresenceActs = z.object({
  acts: z.array(
    z.object({
      at: z.iso.datetime(),
      kind: z.enum(ACT_KINDS),
      words: count.nullable(),
      counts: z.boolean(),
      why: z.string(),
      by: z.string(),
      activity: z.object({ id: z.uuid(), title: z.string() }).nullable(),
    }),
  ),
})
export type PresenceActs = z.infer<typeof PresenceActs>
