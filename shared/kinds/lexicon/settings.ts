import { z } from 'zod'

/** See `LexiconSettings`. */
export const LexiconSettingsBody = z.object({
  duplicates: z.enum(['refused', 'allowed']),
  categories: z.array(z.string().trim().min(1).max(60)).max(40),
  linked: z.boolean(),
})
export type LexiconSettingsBody = z.infer<typeof LexiconSettingsBody>
