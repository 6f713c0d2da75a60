import { z } from 'zod'

const line = (most: number) =>
  z
    .string()
    .trim()
    .transform(t => t.replace(/\s+/g, ' '))
    .pipe(z.string().max(most, `Up to ${most} characters.`))
/** See `TermDetail` of the lexicon: what a term is besides its definition. */
export const TermDetail = z.object({
  term: line(100),
  forms: z
    .array(line(100))
    .max(20, 'Up to twenty other forms.')
    .transform(list => list.filter(Boolean)),
  category: line(60).nullable(),
  sources: z.string().trim().max(1000, 'Up to 1,000 characters.'),
  whole: z.boolean(),
})
export type TermDetail = z.infer<typeof TermDetail>
