import { z } from 'zod'
import { ACTIVITY_KINDS } from '../../core/contributing/kinds/kind'
import { STANDINGS } from '../../core/contributing/standing'
import { PHASES } from '../../core/planning/schedule'

export const StandingCounts = z.object(Object.fromEntries(STANDINGS.map(s => [s, z.number().int()])) as Record<(typeof STANDINGS)[number], z.ZodNumber>)
export type StandingCounts = z.infer<typeof StandingCounts>

export const PlanActivity = z.object({
  id: z.uuid(),
  unitId: z.uuid().nullable(),
  kind: z.enum(ACTIVITY_KINDS),
  title: z.string(),
  summary: z.string(),
  state: z.enum(['draft', 'scheduled', 'published']),
  opensAt: z.iso.datetime(),
  closesAt: z.iso.datetime(),
  phases: z.array(z.object({ name: z.enum(PHASES), startsAt: z.iso.datetime(), endsAt: z.iso.datetime() })),
  counts: StandingCounts.nullable(), // staff only
  standing: z.enum(STANDINGS).nullable(), // a student's own
})
export type PlanActivity = z.infer<typeof PlanActivity>

export const TermPlan = z.object({
  units: z.array(z.object({ id: z.uuid(), title: z.string(), fromWeek: z.number().int(), toWeek: z.number().int() })),
  activities: z.array(PlanActivity),
  students: z.number().int(),
  load: z.array(z.object({ week: z.number().int(), studentMinutes: z.number(), markingMinutes: z.number() })),
  silent: z.array(z.object({ activityId: z.uuid(), names: z.array(z.string()) })), // staff: open activities and who has nothing shown
})
export type TermPlan = z.infer<typeof TermPlan>
