import { z } from 'zod'
import { ACTIVITY_KINDS } from '#core/kinds/kind'

export const FindQuery = z.object({ q: z.string().trim().min(1).max(100) })
export const Found = z.object({
  activities: z.array(
    z.object({
      id: z.uuid(),
      kind: z.enum(ACTIVITY_KINDS),
      title: z.string(),
      state: z.enum(['draft', 'scheduled', 'published']),
      template: z.boolean(),
    }),
  ),
  people: z.array(z.object({ id: z.uuid(), name: z.string(), role: z.string() })),
  contributions: z.array(
    z.object({
      id: z.uuid(),
      activityId: z.uuid(),
      title: z.string(),
      author: z.string(),
      excerpt: z.string(),
      page: z.object({ id: z.uuid(), groupId: z.uuid().nullable() }).nullable(),
    }),
  ),
})
export type Found = z.infer<typeof Found>
