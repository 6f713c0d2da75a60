import { z } from 'zod'
import { AuthorView } from '#shared/contributing/thread'
import { TermDetail } from './term'

/** The terms of a seminar that their reader may know, as they are looked for in every text. */
export const TermsView = z.object({
  terms: z.array(
    z.object({ id: z.uuid(), activityId: z.uuid(), forms: z.array(z.string()), whole: z.boolean() }),
  ), // forms: the term itself first
  ofTheDay: z.uuid().nullable(),
})
export type TermsView = z.infer<typeof TermsView>
export const TermParams = z.object({ seminarId: z.uuid(), termId: z.uuid() })
/** What is shown beside a term. */
export const TermCard = z.object({
  id: z.uuid(),
  activityId: z.uuid(),
  term: TermDetail,
  html: z.string(),
  author: AuthorView,
})
export type TermCard = z.infer<typeof TermCard>

export const LexiconTakeQuery = z.object({ as: z.enum(['csv', 'json', 'html']) })
export const LexiconImport = z.object({
  key: z.uuid(),
  text: z.string().min(1, 'This file is empty.').max(2_000_000),
  trial: z.boolean(),
}) // trial: only said what it would do
export type LexiconImport = z.infer<typeof LexiconImport>
export const LexiconImported = z.object({
  added: z.array(z.string()), // terms
  skipped: z.array(z.object({ line: z.number().int(), term: z.string(), why: z.string() })),
})
