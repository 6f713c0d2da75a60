import { z } from 'zod'
import { HAND_IN_WAYS } from '#core/kinds/review/reviewSettings'
import { RubricView } from '#shared/contributing/activity'
import { RichDoc } from '#shared/contributing/richDoc'
import { ReviewQuestionBody } from './settings'
import { AttachedFile } from '#shared/contributing/thread'

export const ReviewParams = z.object({ reviewId: z.uuid() })
export const ReceivedParams = z.object({ receivedId: z.uuid() })
export const ReviewFileParams = z.object({
  reviewId: z.uuid(),
  place: z.coerce.number().int().min(0).max(30),
})
export const TextQuery = z.object({ text: z.literal('1').optional() })

const figures = z.record(z.uuid(), z.number().int().min(0))
const words = z.record(z.uuid(), z.string().max(20_000))
export const Passage = z.object({
  exact: z.string().min(1).max(2000),
  prefix: z.string().max(64),
  suffix: z.string().max(64),
  start: z.number().int().min(0),
  note: z.string().trim().max(4000),
})
export type Passage = z.infer<typeof Passage>

/** What a reviewer has given so far. */
export const ReviewGiven = z.object({
  points: figures,
  remarks: words,
  answers: words,
  passages: z.array(Passage).max(60),
  private: z.string().max(10_000),
})
export type ReviewGiven = z.infer<typeof ReviewGiven>
export const ReviewWrite = ReviewGiven.extend({ baseVersion: z.number().int().nullable() })
export type ReviewWrite = z.infer<typeof ReviewWrite>
export const ReviewStored = z.object({ version: z.number().int(), words: z.number().int() })
export type ReviewStored = z.infer<typeof ReviewStored>

/** A name, address or number in a text, before it is handed in. */
export const FoundNameView = z.object({
  exact: z.string(),
  start: z.number().int(),
  kind: z.enum(['name', 'email', 'number']),
  isOwn: z.boolean(),
})
export type FoundNameView = z.infer<typeof FoundNameView>
export const NamesCheck = z.object({
  text: z.string().max(200_000),
  fileIds: z.array(z.uuid()).max(20).default([]),
})
export const NamesFound = z.object({
  found: z.array(FoundNameView),
  notSearched: z.array(z.string()), // names of papers whose words cannot be read: their pages are pictures
})

export const GivenHead = z.object({
  id: z.uuid(), // of the allocation: drawn at random
  called: z.string(), // the work's alias; a teammate's name
  kind: z.enum(['work', 'self', 'practice', 'teammate']),
  state: z.enum(['owed', 'begun', 'in']),
  missing: z.number().int(), // how much it still lacks
  words: z.number().int(),
  setAside: z.string().nullable(), // why it does not count, where the reviewer was told
})
export type GivenHead = z.infer<typeof GivenHead>

/** A review as the one whose work it is receives it: no name, no time. */
export const ReceivedReview = z.object({
  id: z.uuid(), // drawn at random, not the reviewer's own address
  from: z.string(), // an alias
  points: figures,
  remarks: words,
  answers: words,
  passages: z.array(Passage),
  helpful: z.number().int().min(1).max(5).nullable(),
  answerHtml: z.string().nullable(),
})
export type ReceivedReview = z.infer<typeof ReceivedReview>

/** A student's own side of a peer review. */
export const OwnReviews = z.object({
  dealt: z.boolean(),
  released: z.boolean(),
  writeEndsAt: z.iso.datetime().nullable(), // the reader's own
  reviewEndsAt: z.iso.datetime().nullable(),
  canHandIn: z.boolean(),
  ownCalled: z.string().nullable(), // what reviewers call the reader's work
  group: z
    .object({ title: z.string(), members: z.array(z.string()), handedInBy: z.string().nullable() })
    .nullable(), // of a hand-in for the group
  given: z.array(GivenHead),
  more: z.object({ open: z.boolean(), wanted: z.number().int() }), // extra reviews: whether one can offer, and how many one has offered
  criteria: RubricView.shape.criteria,
  questions: z.array(z.object({ id: z.uuid(), text: z.string() })),
  self: ReviewGiven.pick({ points: true, remarks: true }).nullable(), // what the reader gave their own work, once it is in
  // of what the reader gave; from two authors on, so that none is told from another
  helpfulMean: z.object({ mean: z.number(), of: z.number().int() }).nullable(),
  received: z.array(ReceivedReview),
  helpfulAsked: z.boolean(),
  handIn: z.object({
    ways: z.array(z.enum(HAND_IN_WAYS)),
    late: z.enum(['taken', 'refused']),
    subject: z.enum(['work', 'teammates']),
    each: z.number().int(),
    self: z.boolean(),
    together: z.boolean(),
    remarkWords: z.number().int(),
    onPaper: z.boolean(),
  }),
})
export type OwnReviews = z.infer<typeof OwnReviews>

/** One piece of work before its reviewer. */
export const ReviewDesk = z.object({
  id: z.uuid(),
  activityId: z.uuid(),
  seminarId: z.uuid(),
  title: z.string(), // of the activity
  called: z.string(),
  ownCalled: z.string().nullable(), // what the author will call the reader
  kind: z.enum(['work', 'self', 'practice', 'teammate']),
  state: z.enum(['owed', 'begun', 'in']),
  dueAt: z.iso.datetime().nullable(),
  open: z.boolean(), // can be changed
  practiseFirst: z.uuid().nullable(), // the review of a sample that has to be in before
  mayTakeBack: z.boolean(), // it is in, and can be gone on with
  together: z.boolean(),
  remarkWords: z.number().int(),
  work: z
    .object({
      title: z.string().nullable(),
      html: z.string(),
      words: z.number().int(),
      onPaper: z.boolean(),
      files: z.array(AttachedFile.omit({ id: true }).extend({ place: z.number().int() })),
    })
    .nullable(),
  criteria: RubricView.shape.criteria,
  questions: z.array(ReviewQuestionBody),
  given: ReviewGiven,
  version: z.number().int().nullable(),
  words: z.number().int(),
  answerHtml: z.string().nullable(), // what the author has answered, without a name
  sample: z.object({ points: figures, why: words }).nullable(), // the instructor's own scores, once the reader's are in
})
export type ReviewDesk = z.infer<typeof ReviewDesk>

export const ReviewHandIn = z.object({ key: z.uuid() })
export const HelpfulWrite = z.object({ helpful: z.number().int().min(1).max(5).nullable() })
export const AnswerWrite = z.object({ key: z.uuid(), doc: RichDoc })
export const WillingWrite = z.object({ more: z.number().int().min(0).max(5) })
export const PaperWrite = z.object({ key: z.uuid(), enrolmentId: z.uuid(), handedIn: z.boolean() })
export const HandedIn = z.object({ handedIn: z.number().int() })
