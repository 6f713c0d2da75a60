import { z } from 'zod'

const Side = z.object({
  id: z.uuid(),
  author: z.string(),
  shownAt: z.iso.datetime(),
  html: z.string(),
  share: z.number(),
}) // share of its wording that the other has
/** Contributions that repeat each other's wording, for staff. */
export const LookAlikesView = z.object({
  pairs: z.array(
    z.object({
      first: Side,
      second: Side,
      passages: z.array(z.object({ first: z.string(), second: z.string() })),
    }),
  ),
})
export type LookAlikesView = z.infer<typeof LookAlikesView>
