import { z } from 'zod'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import { STANDINGS } from '#core/standing/standing'
import { PHASES } from '#core/planning/schedule'
import type { PlanRemark, PlanWideRemark } from '#core/planning/planChecks'
import { Rule } from '../contributing/activity'

export const StandingCounts = z.object(
  Object.fromEntries(STANDINGS.map(s => [s, z.number().int()])) as Record<
    (typeof STANDINGS)[number],
    z.ZodNumber
  >,
)
export type StandingCounts = z.infer<typeof StandingCounts>

/** Students who take part alike in everything. */
const TakingPart = z.object({
  sort: z.number().int(),
  people: z.number().int(),
  reads: z.number().int(),
  teammates: z.number().int(),
})

export const PlanActivity = z.object({
  id: z.uuid(),
  unitId: z.uuid().nullable(),
  kind: z.enum(ACTIVITY_KINDS),
  title: z.string(),
  summary: z.string(),
  state: z.enum(['draft', 'scheduled', 'published']),
  version: z.number().int(),
  guest: z.boolean(), // held jointly, and planned in another seminar
  opensAt: z.iso.datetime(),
  closesAt: z.iso.datetime(),
  phases: z.array(z.object({ name: z.enum(PHASES), startsAt: z.iso.datetime(), endsAt: z.iso.datetime() })),
  counts: StandingCounts.nullable(), // staff only
  standing: z.enum(STANDINGS).nullable(), // a student's own
  planning: z
    .object({
      // staff: what load and moves are calculated from
      rules: z.array(Rule),
      parts: z.array(TakingPart),
      marked: z.boolean(),
      restWeeks: z.array(z.number().int()),
      locked: z.boolean(),
      hasStarter: z.boolean(),
      weekly: z.boolean(),
      byRubric: z.boolean(), // marked on the desk
    })
    .nullable(),
})
export type PlanActivity = z.infer<typeof PlanActivity>

export const TermPlan = z.object({
  units: z.array(
    z.object({ id: z.uuid(), title: z.string(), fromWeek: z.number().int(), toWeek: z.number().int() }),
  ),
  activities: z.array(PlanActivity),
  students: z.number().int(),
  load: z.array(
    z.object({
      week: z.number().int(),
      studentMinutes: z.number(), // of those who have most to do
      leastMinutes: z.number(),
      markingMinutes: z.number(),
    }),
  ),
  silent: z.array(z.object({ activityId: z.uuid(), names: z.array(z.string()) })), // staff: open activities and who has nothing shown
  staff: z
    .object({
      mayManage: z.boolean(),
      term: z.object({
        firstDay: z.string(),
        weeks: z.number().int(),
        timeZone: z.string(),
        breaks: z.array(z.object({ week: z.number().int(), title: z.string() })),
      }),
      usualDueTime: z.string(),
      pace: z.object({
        readingWordsPerMinute: z.number(),
        writingWordsPerMinute: z.number(),
        markingMinutesPerStudent: z.number(),
      }),
      sorts: z.number().int(), // how many sorts of students take part alike
      studentMinutes: z.number(), // a week: above it the plan says so
      markingMinutes: z.number(),
      remarks: z.array(z.object({ activityId: z.uuid(), remark: z.custom<PlanRemark>() })),
      planRemarks: z.array(z.custom<PlanWideRemark>()),
    })
    .nullable(),
})
export type TermPlan = z.infer<typeof TermPlan>
