import { z } from 'zod'

/** See `CombineRule`. */
const each = z.number().int().min(1, 'What one can get is above 0.').max(1_000_000)
export const CombineRuleBody = z.discriminatedUnion('by', [
  z.object({ by: z.literal('mean'), each }),
  z.object({ by: z.literal('sum'), each }),
  z.object({ by: z.literal('latest'), each }),
  z.object({ by: z.literal('best'), each, k: z.number().int().min(1).max(100) }),
  z.object({ by: z.literal('count'), need: z.number().int().min(1).max(100) }),
])
