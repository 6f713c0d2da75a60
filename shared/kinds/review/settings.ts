import { z } from 'zod'
import { HAND_IN_WAYS } from '#core/kinds/review/reviewSettings'

const percent = z.number().int().min(0).max(100)
export const ReviewQuestionBody = z.object({
  id: z.uuid(),
  text: z.string().trim().min(1, 'Put the question.').max(500),
  model: z.string().trim().max(5000).nullable(),
  minWords: z.number().int().min(0).max(2000),
})
/** See `ReviewSettings`. */
export const ReviewSettingsBody = z.object({
  subject: z.enum(['work', 'teammates']),
  each: z.number().int().min(1, 'At least one review each.').max(20),
  self: z.boolean(),
  apartIn: z.uuid().nullable(),
  ways: z.array(z.enum(HAND_IN_WAYS)).min(1, 'Say how work is handed in.'),
  byGroup: z.boolean(),
  late: z.enum(['taken', 'refused']),
  together: z.boolean(),
  remarkWords: z.number().int().min(0).max(2000),
  questions: z.array(ReviewQuestionBody).max(12),
  release: z.enum(['looked', 'atOnce', 'at']),
  releaseAt: z.iso.datetime({ offset: true }).nullable(),
  helpful: z.boolean(),
  reviewingPercent: percent,
  weights: z.object({ done: percent, onTime: percent, helpful: percent, close: percent }),
  bounds: z.object({ least: z.number().min(0).max(1), most: z.number().min(1).max(2) }),
  sharesOf: z.uuid().nullable(),
})
export type ReviewSettingsBody = z.infer<typeof ReviewSettingsBody>
