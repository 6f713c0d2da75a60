import { z } from 'zod'

/** See `ReadingSettings`. */
export const ReadingSettingsBody = z
  .object({
    textId: z.uuid().nullable(),
    from: z.number().int().min(1).max(5000),
    to: z.number().int().min(1).max(5000).nullable(),
    writeFirst: z.enum(['page', 'none']),
  })
  .refine(s => s.to === null || s.to >= s.from, {
    message: 'The last page that is set comes before the first.',
    path: ['to'],
  })
export type ReadingSettingsBody = z.infer<typeof ReadingSettingsBody>
