import { z } from 'zod'
import { CONTRIBUTION_TYPES } from '../../core/contributing/contribution'
import { ACTIVITY_KINDS } from '../../core/contributing/kinds/kind'
import { STANDINGS } from '../../core/contributing/standing'
import { CheckView, RubricView } from '../contributing/activity'
import { RichDoc } from '../contributing/richDoc'
import { StandingCounts } from '../planning/plan'

export const RecordParams = z.object({ activityId: z.uuid(), enrolmentId: z.uuid() })

export const MarkingQueue = z.object({
  activities: z.array(z.object({
    id: z.uuid(), kind: z.enum(ACTIVITY_KINDS), title: z.string(), closesAt: z.iso.datetime(), counts: StandingCounts,
    firstReady: z.uuid().nullable(), // the student to begin with
  })),
})
export type MarkingQueue = z.infer<typeof MarkingQueue>

export const DeskStudent = z.object({ id: z.uuid(), name: z.string(), givenName: z.string(), familyName: z.string(), standing: z.enum(STANDINGS), practice: z.boolean() })
export type DeskStudent = z.infer<typeof DeskStudent>
export const DeskView = z.object({ students: z.array(DeskStudent), counts: StandingCounts })
export type DeskView = z.infer<typeof DeskView>

export const CitationView = z.object({ criterionId: z.uuid(), contributionId: z.uuid(), exact: z.string().min(1).max(2000), start: z.number().int().min(0) })
export type CitationView = z.infer<typeof CitationView>

export const MarkView = z.object({
  version: z.number().int(), // 0 while nothing is stored
  state: z.enum(['open', 'held', 'returned']),
  steps: z.array(z.object({ criterionId: z.uuid(), levelId: z.uuid() })),
  citations: z.array(CitationView), // in the order they are numbered
  letter: z.unknown(),
  markerNote: z.string(),
  lateWaived: z.boolean(),
  points: z.number().int(), // hundredths so far
  criteriaLeft: z.number().int(),
  savedAt: z.iso.datetime().nullable(),
  savedBy: z.string().nullable(),
  returnedAt: z.iso.datetime().nullable(),
})
export type MarkView = z.infer<typeof MarkView>

export const RecordItem = z.object({
  id: z.uuid(),
  type: z.enum(CONTRIBUTION_TYPES),
  shownAt: z.iso.datetime(),
  words: z.number().int(),
  text: z.string(),
  withdrawn: z.boolean(),
  answers: z.object({ name: z.string(), text: z.string() }).nullable(), // what it answered
  answered: z.array(z.object({ name: z.string(), text: z.string() })), // first words of those who answered it
})
export type RecordItem = z.infer<typeof RecordItem>

/** One student's contributions to one activity, in context, with the mark as it stands. */
export const RecordView = z.object({
  rubric: RubricView.nullable(), // the version this student is marked by
  student: DeskStudent,
  items: z.array(RecordItem),
  draftsBegun: z.array(z.object({ words: z.number().int(), savedAt: z.iso.datetime() })), // that they exist, never their words
  summary: z.object({ contributions: z.number().int(), words: z.number().int(), classmates: z.number().int(), days: z.number().int() }),
  checks: z.array(CheckView),
  dueAt: z.iso.datetime(), // the student's own close
  extended: z.string().nullable(), // reason of an extension
  late: z.object({ minutes: z.number().int(), pointsWithout: z.number().int() }).nullable(),
  suggested: z.array(z.object({ criterionId: z.uuid(), levelId: z.uuid(), because: z.string() })),
  mark: MarkView,
})
export type RecordView = z.infer<typeof RecordView>

export const MarkWrite = z.object({
  key: z.uuid(),
  baseVersion: z.number().int(),
  steps: z.array(z.object({ criterionId: z.uuid(), levelId: z.uuid() })).max(50),
  citations: z.array(CitationView).max(200),
  letter: RichDoc,
  markerNote: z.string().max(10_000, 'The marker\'s note takes up to 10,000 characters.'),
  lateWaived: z.boolean(),
})
export type MarkWrite = z.infer<typeof MarkWrite>

export const MarkAct = z.object({ key: z.uuid(), baseVersion: z.number().int() })
export const ReturnHeld = z.object({ key: z.uuid(), enrolmentIds: z.array(z.uuid()).min(1, 'Nobody was chosen.').max(2000) })
export const ReturnedAnswer = z.object({ returned: z.number().int() })
