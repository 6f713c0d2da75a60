import { z } from 'zod'
import { ACTIVITY_KINDS } from '#core/kinds/kind'

export const OutcomeParams = z.object({ seminarId: z.uuid(), outcomeId: z.uuid() })
const Worded = z.object({
  key: z.uuid(),
  code: z.string().trim().min(1, 'Write a short code.').max(60, 'A code takes up to 60 characters.'),
  statement: z
    .string()
    .trim()
    .min(1, 'Write what students should have learnt.')
    .max(2000, 'An outcome takes up to 2,000 characters.'),
})
export const OutcomeAdd = Worded
export type OutcomeAdd = z.infer<typeof OutcomeAdd>
export const OutcomeWrite = Worded.extend({ baseVersion: z.number().int(), retired: z.boolean() })
export type OutcomeWrite = z.infer<typeof OutcomeWrite>

// percent from which an outcome counts as reached
export const OutcomesQuery = z.object({ from: z.coerce.number().int().min(1).max(100).optional() })
export type OutcomesQuery = z.infer<typeof OutcomesQuery>
export const OutcomesExportQuery = OutcomesQuery.extend({ by: z.enum(['criterion', 'student']) })
const count = z.number().int().min(0)
const Reached = z.object({ judged: count, above: count, below: count, mean: z.number().nullable() })
const BySection = z.array(Reached.extend({ sectionId: z.uuid().nullable(), title: z.string() }))
export const OutcomesView = z.object({
  from: count,
  students: count,
  outcomes: z.array(
    Reached.extend({
      id: z.uuid(),
      identifier: z.string(),
      code: z.string(),
      statement: z.string(),
      retired: z.boolean(),
      sections: BySection,
      criteria: z.array(
        Reached.extend({
          activityId: z.uuid(),
          activity: z.string(),
          kind: z.enum(ACTIVITY_KINDS),
          criterion: z.string(),
          sections: BySection,
        }),
      ),
      people: z.array(
        z.object({
          id: z.uuid(),
          name: z.string(),
          percent: z.number(),
          above: z.boolean(),
          judgements: count,
        }),
      ),
    }),
  ),
  without: count, // judged criteria that are aligned with no outcome
})
export type OutcomesView = z.infer<typeof OutcomesView>
