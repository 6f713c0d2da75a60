import { z } from 'zod'

/** What a share for one's own reviewing was made of: reviews asked for, done, done in time; found helpful; close to the others. */
export const ReviewingParts = z.object({
  owed: z.number().int(),
  done: z.number().int(),
  onTime: z.number().int(),
  helpful: z.number().int().nullable(), // mean rating, hundredths of 1 to 5
  close: z.number().int().nullable(), // ten-thousandths
})
export type ReviewingParts = z.infer<typeof ReviewingParts>
