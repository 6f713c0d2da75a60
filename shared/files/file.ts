import { z } from 'zod'

export const FileParams = z.object({ fileId: z.uuid() })
/** A file in base64, up to 20 MB. */
export const FileWrite = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1).max(200),
  base64: z.string().min(1, 'This file is empty.'),
  transcript: z.string().max(500_000).nullable(),
})
export type FileWrite = z.infer<typeof FileWrite>
export const FileView = z.object({
  id: z.uuid(),
  url: z.string(),
  name: z.string(),
  type: z.string(),
  size: z.number().int(),
  hasText: z.boolean(),
})
export type FileView = z.infer<typeof FileView>

export const TranscriptWrite = z.object({
  transcript: z.string().max(500_000, 'A transcript has up to 500,000 characters.').nullable(), // WebVTT; null: none
})
export const TranscriptKept = z.object({ before: z.string().nullable() })
