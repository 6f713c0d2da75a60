import { z } from 'zod'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import { CheckView, ExpectationView } from '../contributing/activity'
import { VoiceView } from './voices'

export const StudentParams = z.object({ seminarId: z.uuid(), enrolmentId: z.uuid() })
/** Measures a student is set beside the others by, as fields of `VoiceView`. */
export const TYPICAL = [
  'contributions',
  'words',
  'wordsEach',
  'answered',
  'answeredBy',
  'shareAnswered',
  'reciprocity',
  'medianToAnswer',
  'depth',
  'daysActive',
  'firstAgainstDue',
  'sentenceLength',
  'ease',
] as const
const count = z.number().int().min(0)
const Other = z.object({ id: z.uuid(), name: z.string(), times: count, isStaff: z.boolean() })

/** One student through the term, for those who teach. */
export const OneVoice = z.object({
  voice: VoiceView,
  section: z.string().nullable(),
  typical: z.record(z.enum(TYPICAL), z.number().nullable()), // medians of everyone
  weeks: z.array(
    z.object({
      number: count,
      label: count.nullable(),
      contributions: count,
      words: count,
      typicalWords: z.number(),
      contact: count,
    }),
  ),
  answered: z.array(Other),
  answeredBy: z.array(Other),
  activities: z.array(
    z.object({
      id: z.uuid(),
      title: z.string(),
      kind: z.enum(ACTIVITY_KINDS),
      contributions: count,
      words: count,
      checks: z.array(CheckView),
      expectations: z.array(ExpectationView),
      standing: z.enum(['nothing', 'underWay', 'ready', 'held', 'returned']),
      excused: z.boolean(),
      shown: z.string().nullable(),
    }),
  ), // shown: the mark
  latest: z.array(
    z.object({
      id: z.uuid(),
      activityId: z.uuid(),
      at: z.iso.datetime(),
      words: z.string(),
      to: z.string().nullable(),
    }),
  ),
  gapLimit: count,
  messages: count,
  neighbours: z.object({ before: z.uuid().nullable(), after: z.uuid().nullable() }),
})
export type OneVoice = z.infer<typeof OneVoice>
