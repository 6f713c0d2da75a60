import { z } from 'zod'
import { LateRuleBody } from '../planning/composer'
import { RubricView } from '../contributing/activity'
import { Passage } from '#shared/kinds/review/review'
import { ReviewSettingsBody } from '#shared/kinds/review/settings'
import { RichDoc } from '../contributing/richDoc'

const figures = z.record(z.uuid(), z.number().int())
const words = z.record(z.uuid(), z.string())

/** One allocation as staff see it, with the review once there is one. A review not handed in shows no words. */
export const PeerAllocation = z.object({
  id: z.uuid(),
  reviewerId: z.uuid(),
  subjectId: z.uuid(),
  entryId: z.uuid().nullable(),
  source: z.enum(['dealt', 'byHand', 'extra', 'self', 'practice']),
  state: z.enum(['owed', 'begun', 'in']),
  openedAt: z.iso.datetime().nullable(),
  handedInAt: z.iso.datetime().nullable(),
  late: z.boolean(),
  kept: z.boolean(),
  setAside: z.string().nullable(),
  notDone: z.boolean(), // set aside, and not counted as done by its reviewer
  setAsideTold: z.boolean(),
  helpful: z.number().int().nullable(),
  answerHtml: z.string().nullable(),
  points: figures,
  remarks: words,
  answers: words,
  passages: z.array(Passage),
  private: z.string(),
  text: z.string(),
  words: z.number().int(),
  names: z.array(z.string()),
  namesReviewer: z.boolean(),
})
export type PeerAllocation = z.infer<typeof PeerAllocation>

export const PeerPerson = z.object({
  id: z.uuid(),
  name: z.string(),
  givenName: z.string(),
  familyName: z.string(),
  initials: z.string(),
  active: z.boolean(),
  groupId: z.uuid().nullable(),
  more: z.number().int(), // extra reviews offered
  // by the activity's rule; null while the work is not there, and without a rule
  lateness: z.object({ minutes: z.number().int(), startedDays: z.number().int() }).nullable(),
})
export type PeerPerson = z.infer<typeof PeerPerson>
export const PeerWork = z.object({
  id: z.uuid(),
  authorIds: z.array(z.uuid()),
  authorId: z.uuid(),
  title: z.string(),
  handedInAt: z.iso.datetime(),
  lateMinutes: z.number().int(),
  words: z.number().int(),
  isSample: z.boolean(),
})
export type PeerWork = z.infer<typeof PeerWork>
/** What has been marked of one student so far. */
export const PeerMark = z.object({
  enrolmentId: z.uuid(),
  state: z.enum(['open', 'held', 'returned']),
  points: z.number().int().nullable(),
  takenFrom: z.enum(['consensus']).nullable(),
  lateWaived: z.boolean(),
  steps: figures, // what the mark is made of
  own: figures, // what the marker gave beside the readers
  factor: z.number().int().nullable(),
})
export type PeerMark = z.infer<typeof PeerMark>

export const PeersView = z.object({
  settings: ReviewSettingsBody,
  dealtAt: z.iso.datetime().nullable(),
  releasedAt: z.iso.datetime().nullable(),
  releasedUpTo: z.iso.datetime().nullable(), // handed in later, they wait
  waiting: z.number().int(), // reviews that came in after the release
  version: z.number().int(),
  handInEnded: z.boolean(),
  handInEndsAt: z.iso.datetime().nullable(),
  reviewStartsAt: z.iso.datetime().nullable(),
  reviewBegun: z.boolean(),
  reviewEndsAt: z.iso.datetime().nullable(),
  rubric: RubricView.nullable(),
  worth: z.number().int(),
  pointStep: z.number().int(),
  lateRule: LateRuleBody,
  people: z.array(PeerPerson), // by family name
  works: z.array(PeerWork),
  notHandedIn: z.array(z.uuid()),
  allocations: z.array(PeerAllocation),
  apart: z.array(z.tuple([z.uuid(), z.uuid()])),
  samples: z.record(z.uuid(), figures), // the instructor's scores of samples, by entry
  marks: z.array(PeerMark),
  groups: z.array(z.object({ id: z.uuid(), title: z.string(), memberIds: z.array(z.uuid()) })),
  shares: z
    .object({
      activityId: z.uuid(),
      title: z.string(),
      worth: z.number().int(),
      marks: z.array(
        PeerMark.pick({ enrolmentId: true, state: true, points: true, factor: true }).extend({
          // hundredths, by hundredth of the share from the least on; null while it is not marked
          pointsAt: z.array(z.number().int()).nullable(),
        }),
      ),
    })
    .nullable(), // of teammates: the group's mark
})
export type PeersView = z.infer<typeof PeersView>

export const PairRef = z.object({ reviewerId: z.uuid(), entryId: z.uuid() })
export const DealWrite = z.object({ key: z.uuid(), seed: z.number().int().min(0).max(2_000_000_000) })
export const PairsWrite = z.object({
  key: z.uuid(),
  baseVersion: z.number().int(),
  add: z.array(PairRef).max(200),
  remove: z.array(PairRef).max(200),
})
export type PairsWrite = z.infer<typeof PairsWrite>
export const ApartWrite = z.object({ pairs: z.array(z.tuple([z.uuid(), z.uuid()])).max(500) })
export const RepairPlan = z.object({
  idle: z.array(z.uuid()).max(2000).default([]),
  extra: z.enum(['none', 'willing', 'everyone']).default('willing'),
})
export type RepairPlan = z.infer<typeof RepairPlan>
export const RepairView = z.object({
  add: z.array(PairRef),
  remove: z.array(PairRef),
  short: z.array(z.object({ entryId: z.uuid(), missing: z.number().int() })),
  untouched: z.number().int(),
  baseVersion: z.number().int(),
})
export type RepairView = z.infer<typeof RepairView>
export const AllocationParams = z.object({ activityId: z.uuid(), allocationId: z.uuid() })
export const JudgeWrite = z.discriminatedUnion('as', [
  z.object({ as: z.literal('kept') }),
  z.object({ as: z.literal('open') }),
  z.object({
    as: z.literal('setAside'),
    reason: z.string().trim().min(1, 'Say why; the reason is kept with the review.').max(500),
    countsAsDone: z.boolean().default(true), // for what its reviewer owes and is marked for
    tell: z.boolean().default(false), // its reviewer is told, with the reason
  }),
])
export type JudgeWrite = z.infer<typeof JudgeWrite>
/** Why a review does not count, whether it is done all the same, and whether its reviewer is told. */
export type SettingAside = Omit<Extract<JudgeWrite, { as: 'setAside' }>, 'as'>
export const ReleaseWrite = z.object({
  released: z.boolean(),
  late: z.boolean().default(false), // only those that came in after the release
  upTo: z.iso.datetime().nullable().default(null), // late ones held again: those handed in after this moment
})
export type ReleaseWrite = z.infer<typeof ReleaseWrite>
export const TakeWrite = z.object({
  key: z.uuid(),
  enrolmentIds: z.array(z.uuid()).min(1).max(2000),
  what: z.enum(['consensus', 'own']).default('consensus'), // own: the marker's own points
})
export const UndoTakeWrite = TakeWrite.omit({ what: true })
export const TakeAnswer = z.object({
  taken: z.array(z.uuid()),
  left: z.array(z.object({ enrolmentId: z.uuid(), why: z.string() })),
})
export type TakeAnswer = z.infer<typeof TakeAnswer>
export const SharesWrite = z.object({
  key: z.uuid(),
  factors: z
    .array(z.object({ enrolmentId: z.uuid(), factor: z.number().int().min(0).max(200).nullable() }))
    .min(1)
    .max(2000),
})
export const RemindWrite = z.object({
  key: z.uuid(),
  enrolmentIds: z.array(z.uuid()).min(1).max(2000),
  words: z.string().trim().min(1, 'Write a line or two.').max(3000),
})
export const SampleWrite = z.object({
  key: z.uuid(),
  id: z.uuid(),
  doc: RichDoc,
  points: figures,
  why: words,
})
export type SampleWrite = z.infer<typeof SampleWrite>
export const Version = z.object({ version: z.number().int() })
export const NotifiedCount = z.object({ told: z.number().int() })
export const SampleParams = z.object({ activityId: z.uuid(), entryId: z.uuid() })
