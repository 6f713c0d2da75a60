import { z } from 'zod'

/** What came back from an archive. */
export const Restored = z.object({
  seminarId: z.uuid(),
  title: z.string(),
  people: z.number().int(),
  contributions: z.number().int(),
})
export type Restored = z.infer<typeof Restored>
export const EraseWrite = z.object({ name: z.string().trim().max(200) }) // the person’s name, typed out, because it cannot be undone
export const Erased = z.object({ name: z.string() }) // what they are called now
