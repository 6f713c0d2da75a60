import { z } from 'zod'
import { LetterFile } from './desk'
import { ReviewingParts } from './reviewing'
import { RichDoc } from '../contributing/richDoc'
import { ACTIVITY_KINDS } from '#core/kinds/kind'

/** What a student was given back. Made from what was stored on return, never from a mark still held. */
export const LetterView = z.object({
  activityId: z.uuid(),
  kind: z.enum(ACTIVITY_KINDS),
  title: z.string(),
  to: z.string(),
  by: z.string(),
  returnedAt: z.iso.datetime(),
  html: z.string(),
  rubric: z.string().nullable(),
  shown: z.string(), // the mark in the words of its scale
  passed: z.boolean().nullable(),
  late: z.object({ minutes: z.number().int(), before: z.number().int(), waived: z.boolean() }).nullable(),
  override: z.object({ reason: z.string(), before: z.number().int() }).nullable(),
  factor: z.number().int().nullable(), // hundredths: the student's share of the group's points
  reviewing: z
    .object({ share: z.number().int(), percent: z.number().int(), parts: ReviewingParts.nullable() })
    .nullable(),
  files: z.array(LetterFile),
  points: z.number().int(),
  max: z.number().int(),
  criteria: z.array(
    z.object({
      id: z.uuid(),
      title: z.string(),
      points: z.number().int(),
      max: z.number().int(),
      levelTitle: z.string(),
      descriptor: z.string(),
      levels: z.array(z.number().int()),
      excused: z.string().nullable(),
    }),
  ),
  citations: z.array(
    z.object({
      number: z.number().int(),
      criterionId: z.uuid(),
      contributionId: z.uuid(),
      exact: z.string(),
    }),
  ),
})
export type LetterView = z.infer<typeof LetterView>
export const Letters = z.object({ letters: z.array(LetterView) })

/** What student and markers write to each other under a returned letter, in order. */
export const LetterTalk = z.object({
  replies: z.array(
    z.object({
      id: z.uuid(),
      author: z.string(),
      isMe: z.boolean(),
      isStaff: z.boolean(),
      html: z.string(),
      at: z.iso.datetime(),
    }),
  ),
})
export type LetterTalk = z.infer<typeof LetterTalk>
export const LetterReplyWrite = z.object({ key: z.uuid(), doc: RichDoc })
export type LetterReplyWrite = z.infer<typeof LetterReplyWrite>
