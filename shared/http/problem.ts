import { z } from 'zod'

/** Problem details (RFC 9457). `detail` is a sentence a person can act on; `fields` puts sentences beside inputs. */
export const ProblemDetails = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  code: z.string(),
  detail: z.string(),
  fields: z.record(z.string(), z.string()).optional(),
  theirs: z.unknown().optional(), // on a conflict: what is stored now, so that both texts can be shown
})
export type ProblemDetails = z.infer<typeof ProblemDetails>
