import { z } from 'zod'
import { CONTRIBUTION_TYPES } from '#core/contributing/contribution'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import { NOTE_KINDS } from '#core/kinds/reading/reading'
import { STANDINGS } from '#core/standing/standing'
import { CheckView, RubricView } from '../contributing/activity'
import { AttachedFile } from '../contributing/thread'
import { RichDoc } from '../contributing/richDoc'
import { StandingCounts } from '../planning/plan'
import { CombineRuleBody } from './combine'
import { ReviewingParts } from './reviewing'

export const RecordParams = z.object({ activityId: z.uuid(), enrolmentId: z.uuid() })

export const MarkingQueue = z.object({
  activities: z.array(
    z.object({
      id: z.uuid(),
      kind: z.enum(ACTIVITY_KINDS),
      title: z.string(),
      closesAt: z.iso.datetime(),
      counts: StandingCounts,
      firstReady: z.uuid().nullable(), // the student to begin with
      mine: StandingCounts.nullable(), // of the reader's own share; null where nothing is shared out
      firstMine: z.uuid().nullable(),
      seconds: z.number().int(), // records the reader is asked to mark a second time
      firstSecond: z.uuid().nullable(),
    }),
  ),
  markers: z.array(z.object({ id: z.uuid(), name: z.string(), isMe: z.boolean() })),
})
export type MarkingQueue = z.infer<typeof MarkingQueue>

export const DeskStudent = z.object({
  id: z.uuid(),
  name: z.string(),
  givenName: z.string(),
  familyName: z.string(),
  standing: z.enum(STANDINGS),
  practice: z.boolean(),
  markerId: z.uuid().nullable(),
  groupId: z.uuid().nullable(),
  judged: z.array(z.uuid()), // criteria they have a step of
  held: z
    .object({
      points: z.number().int(), // hundredths
      returned: z.number().int().nullable(), // what the student has now, where it was returned before
      hasLetter: z.boolean(),
      lateMinutes: z.number().int(),
      lateWaived: z.boolean(),
      setByHand: z.boolean(),
      returnAt: z.iso.datetime().nullable(),
    })
    .nullable(), // what would be returned
})
export type DeskStudent = z.infer<typeof DeskStudent>
export const DeskView = z.object({
  students: z.array(DeskStudent),
  counts: StandingCounts,
  markers: z.array(z.object({ id: z.uuid(), name: z.string(), isMe: z.boolean() })),
  groups: z.array(z.object({ id: z.uuid(), title: z.string() })), // where the activity is for groups
  seconds: z.array(
    z.object({ enrolmentId: z.uuid(), markerId: z.uuid(), state: z.enum(['asked', 'done', 'agreed']) }),
  ),
  combine: CombineRuleBody.nullable(), // marked contribution by contribution
  worth: z.number().int(), // hundredths
  together: z.boolean(), // planned to be returned all together
  reviewingPercent: z.number().int(), // of the points, for one's own reviewing
  olderVersions: z.number().int(), // marks given under an earlier version of the rubric
})
export type DeskView = z.infer<typeof DeskView>

export const CitationView = z.object({
  criterionId: z.uuid(),
  contributionId: z.uuid(),
  exact: z.string().min(1).max(2000),
  start: z.number().int().min(0),
})
export type CitationView = z.infer<typeof CitationView>

export const Step = z.object({ criterionId: z.uuid(), levelId: z.uuid(), points: z.number().int() })
export type Step = z.infer<typeof Step>
export const CriterionExcuse = z.object({
  criterionId: z.uuid(),
  reason: z.string().trim().min(1, 'Say why.').max(500),
})
export const Override = z.object({
  points: z.number().int().min(0, 'Points are 0 or more.'),
  reason: z.string().trim().max(500, 'Up to 500 characters.'),
})
/** Something that goes with a letter. */
export const LetterFile = AttachedFile.omit({ hasText: true }).extend({ spoken: z.boolean() })
export type LetterFile = z.infer<typeof LetterFile>

export const MarkView = z.object({
  version: z.number().int(), // 0 while nothing is stored
  state: z.enum(['open', 'held', 'returned']),
  steps: z.array(Step),
  excusedFrom: z.array(CriterionExcuse),
  override: Override.nullable(),
  files: z.array(LetterFile),
  citations: z.array(CitationView), // in the order they are numbered
  letter: z.unknown(),
  markerNote: z.string(),
  lateWaived: z.boolean(),
  factor: z.number().int().nullable(), // hundredths: the member's share of the group's points
  reviewing: z.number().int().nullable(), // ten-thousandths: what the student's own reviewing came to
  reviewingParts: ReviewingParts.nullable(), // what that was made of
  takenFrom: z.enum(['consensus']).nullable(), // the steps are the consensus of reviewers
  ownSteps: z.array(Step), // of a peer review: the marker's own points, beside what readers gave
  points: z.number().int(), // hundredths so far
  before: z.number().int().nullable(), // the same without late rule and override
  criteriaLeft: z.number().int(),
  returnAt: z.iso.datetime().nullable(), // a held mark: when it returns itself
  takeBackUntil: z.iso.datetime().nullable(), // a returned mark can be taken back until then
  savedAt: z.iso.datetime().nullable(),
  savedBy: z.string().nullable(),
  returnedAt: z.iso.datetime().nullable(),
})
export type MarkView = z.infer<typeof MarkView>

/** A block of a wiki's page that somebody changed, and what became of its words. */
export const ChangeBlock = z.object({
  as: z.enum(['kept', 'changed', 'added', 'removed', 'movedAway']),
  moved: z.enum(['up', 'down']).nullable(),
  heading: z.boolean(),
  parts: z.array(z.object({ as: z.enum(['kept', 'added', 'removed']), text: z.string() })),
})
export type ChangeBlock = z.infer<typeof ChangeBlock>

export const RecordItem = z.object({
  id: z.uuid(),
  type: z.enum(CONTRIBUTION_TYPES),
  shownAt: z.iso.datetime(),
  words: z.number().int(),
  text: z.string(),
  withdrawn: z.boolean(),
  files: z.array(AttachedFile),
  revisions: z.number().int(), // earlier texts, which staff can read
  mark: z.object({ points: z.number().int().nullable(), done: z.boolean().nullable() }).nullable(), // of this contribution alone
  // what it answered; of a note in a margin, on which words that stands
  answers: z.object({ name: z.string(), text: z.string(), passage: z.string().nullable() }).nullable(),
  answered: z.array(z.object({ name: z.string(), text: z.string() })), // first words of those who answered it
  change: z
    .object({
      pageId: z.uuid(),
      page: z.string(),
      number: z.number().int(),
      summary: z.string(),
      added: z.number().int(),
      removed: z.number().int(),
      moved: z.number().int(),
      blocks: z.array(ChangeBlock),
    })
    .nullable(), // of a page's version; its text is what it added
  about: z
    .object({
      pageId: z.uuid(),
      page: z.string(),
      passage: z.string().nullable(),
      actedOn: z.number().int().nullable(),
    })
    .nullable(), // of a comment in a wiki: actedOn is the version that did
  title: z.string().nullable(), // of an entry or a term
  fileWords: z.number().int(), // in the documents and papers that came with it
  prompt: z.object({ number: z.number().int(), text: z.string() }).nullable(), // of an entry to a journal's prompt
  noted: z
    .object({
      kind: z.enum(NOTE_KINDS),
      where: z.string(),
      before: z.string(),
      exact: z.string(),
      after: z.string(),
      to: z.string().nullable(),
      tags: z.array(z.string()),
      isSet: z.boolean(),
      lost: z.boolean(),
    })
    .nullable(), // of a note in a margin: its passage
})
export type RecordItem = z.infer<typeof RecordItem>

/** A second marker's judgement. To that marker alone while it is being made; then to both. */
export const SecondView = z.object({
  markerId: z.uuid(),
  marker: z.string(),
  isMine: z.boolean(),
  state: z.enum(['asked', 'done', 'agreed']),
  steps: z.array(Step),
  remark: z.string(),
  points: z.number().int().nullable(),
})
export type SecondView = z.infer<typeof SecondView>

/** One student's contributions to one activity, in context, with the mark as it stands. */
export const RecordView = z.object({
  rubric: RubricView.nullable(), // the version this student is marked by
  student: DeskStudent,
  items: z.array(RecordItem),
  draftsBegun: z.array(z.object({ words: z.number().int(), savedAt: z.iso.datetime() })), // that they exist, never their words
  summary: z.object({
    contributions: z.number().int(),
    words: z.number().int(),
    classmates: z.number().int(),
    days: z.number().int(),
  }),
  checks: z.array(CheckView),
  dues: z.array(z.iso.datetime()), // of each check, the student's own
  dueAt: z.iso.datetime(), // the student's own close
  extended: z.string().nullable(), // reason of an extension
  late: z.object({ minutes: z.number().int(), pointsWithout: z.number().int() }).nullable(),
  suggested: z.array(z.object({ criterionId: z.uuid(), levelId: z.uuid(), because: z.string() })),
  mark: MarkView,
  group: z
    .object({
      id: z.uuid(),
      title: z.string(),
      members: z.array(z.object({ id: z.uuid(), name: z.string() })),
      whole: z.boolean(),
    })
    .nullable(), // whole: one mark for the whole group
  second: SecondView.nullable(),
  newerRubric: z.number().int().nullable(), // version the activity is marked by now, where this mark keeps an older one
})
export type RecordView = z.infer<typeof RecordView>

export const MarkWrite = z.object({
  key: z.uuid(),
  baseVersion: z.number().int(),
  // points where a level stands for a range, else the level's own
  steps: z.array(Step.extend({ points: z.number().int().optional() })).max(50),
  ownSteps: z.array(Step).max(50).optional(), // left out: as they were, with what changes in the steps
  citations: z.array(CitationView).max(200),
  letter: RichDoc,
  markerNote: z.string().max(10_000, "The marker's note takes up to 10,000 characters."),
  lateWaived: z.boolean(),
  excusedFrom: z.array(CriterionExcuse).max(50).default([]),
  override: Override.nullable().default(null),
  files: z
    .array(z.object({ id: z.uuid(), spoken: z.boolean() }))
    .max(10, 'Up to ten files go with a letter.')
    .default([]),
})
export type MarkWrite = z.infer<typeof MarkWrite>

export const MarkAct = z.object({ key: z.uuid(), baseVersion: z.number().int() })
export const ReturnHeld = z.object({
  key: z.uuid(),
  enrolmentIds: z.array(z.uuid()).min(1, 'Nobody was chosen.').max(2000),
})
// null: they wait to be returned by hand again
export const ReturnAtWrite = ReturnHeld.extend({ at: z.iso.datetime({ offset: true }).nullable() })
export const ReturnedAnswer = z.object({ returned: z.number().int() })

export const SecondAsk = z.object({
  key: z.uuid(),
  enrolmentIds: z.array(z.uuid()).min(1, 'Nobody was chosen.').max(2000),
  markerId: z.uuid().nullable(),
}) // null: no second marking after all
export const SecondWrite = z.object({
  key: z.uuid(),
  steps: MarkWrite.shape.steps,
  remark: z.string().max(5000),
  done: z.boolean(),
})
export type SecondWrite = z.infer<typeof SecondWrite>
export const ShareWrite = z.object({
  key: z.uuid(),
  enrolmentIds: z.array(z.uuid()).min(1).max(2000),
  markerIds: z.array(z.uuid()).max(60),
}) // dealt in order, evenly; none: nobody's share
export const ContributionMarkWrite = z.object({
  points: z.number().int().min(0).nullable(),
  done: z.boolean().nullable(),
})
export const CombineWrite = z.object({ key: z.uuid(), combine: CombineRuleBody.nullable() })

/** Markers who have the same record open. */
export const OthersHere = z.object({ others: z.array(z.object({ name: z.string() })) })

/** What has happened to a mark, newest first, in words. */
export const MarkHistory = z.object({
  entries: z.array(z.object({ at: z.iso.datetime(), by: z.string(), text: z.string() })),
})
export type MarkHistory = z.infer<typeof MarkHistory>

/** What moving marks to the rubric's newest version would do. */
export const MoveView = z.object({
  title: z.string(),
  to: z.number().int(),
  marks: z.array(
    z.object({
      enrolmentId: z.uuid(),
      name: z.string(),
      from: z.number().int(),
      version: z.number().int(),
      state: z.enum(['open', 'held', 'returned']),
      pointsBefore: z.number().int().nullable(),
      pointsAfter: z.number().int().nullable(),
      left: z.array(z.string()),
    }),
  ), // left: criteria without a step afterwards
})
export type MoveView = z.infer<typeof MoveView>
export const MoveWrite = z.object({ key: z.uuid(), enrolmentIds: z.array(z.uuid()).min(1).max(2000) })

export const PhraseView = z.object({
  id: z.uuid(),
  text: z.string(),
  criterion: z.string().nullable(),
  uses: z.number().int(),
  lastUsedAt: z.iso.datetime().nullable(),
})
export type PhraseView = z.infer<typeof PhraseView>
export const Phrases = z.object({ phrases: z.array(PhraseView) })
export const PhraseWrite = z.object({
  id: z.uuid(),
  text: z.string().trim().min(1, 'Write the phrase.').max(2000),
  criterion: z.string().trim().max(200).nullable(),
})
export const PhraseParams = z.object({ seminarId: z.uuid(), phraseId: z.uuid() })
