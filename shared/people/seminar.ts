import { z } from 'zod'
import { ACTIVITY_KINDS } from '#core/kinds/kind'

export const SeminarParams = z.object({ seminarId: z.uuid() })

/** What every page of a seminar needs: who one is in it, its weeks, and the figures beside the navigation. */
export const SeminarShell = z.object({
  id: z.uuid(),
  title: z.string(),
  code: z.string(),
  college: z.string(),
  timeZone: z.string(),
  role: z.enum(['instructor', 'assistant', 'student', 'observer']),
  archived: z.boolean(),
  silentSince: z.iso.datetime().nullable(), // staff: brought back from an archive then, and nobody is told anything yet
  studentsEye: z.boolean(), // an instructor looks through a practice student's eyes
  usualDueTime: z.string(),
  usualDueWeekday: z.number().int(), // 1 Monday … 7 Sunday
  now: z.iso.datetime(),
  week: z.number().int(), // the current one; outside 1..weeks.length out of term
  weeks: z.array(
    z.object({
      number: z.number().int(), // counted with breaks
      label: z.number().int().nullable(), // as people count: without breaks; null for a break
      title: z.string().nullable(), // of a break
      startsAt: z.iso.datetime(),
      endsAt: z.iso.datetime(),
      kinds: z.array(z.enum(ACTIVITY_KINDS)), // kinds worked on in it, one tick each
    }),
  ),
  readyToMark: z.number().int(), // staff; 0 for others
  lettersBack: z.number().int(), // students; 0 for others
  messages: z.object({ any: z.boolean(), fresh: z.number().int() }), // what one has been written, and not read yet
  unseen: z.number().int(), // notices one has not looked at
})
export type SeminarShell = z.infer<typeof SeminarShell>

export const StudentsEyeWrite = z.object({ on: z.boolean() })
