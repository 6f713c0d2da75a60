import { z } from 'zod'

/** The answer of a write that has nothing to tell but that it was done. */
export const Done = z.object({ done: z.boolean() })
