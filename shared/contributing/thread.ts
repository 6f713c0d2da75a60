import { z } from 'zod'
import { CONTRIBUTION_TYPES } from '#core/contributing/contribution'
import { CheckView } from './activity'
import { NoteDetail, NoteView } from '#shared/kinds/reading/reading'
import { TalkDoc } from './richDoc'
import { TermDetail } from '#shared/kinds/lexicon/term'

export const ContributionParams = z.object({ contributionId: z.uuid() })

export const AuthorView = z.object({
  id: z.uuid(),
  name: z.string(),
  givenName: z.string(),
  initials: z.string(),
  isStaff: z.boolean(),
  role: z.enum(['instructor', 'assistant']).nullable(), // of staff
  isMe: z.boolean(),
})
export type AuthorView = z.infer<typeof AuthorView>

export const TakesUp = z.object({ contributionId: z.uuid(), exact: z.string().min(1).max(600) })
export type TakesUp = z.infer<typeof TakesUp>

/** A file that came with a contribution. */
export const AttachedFile = z.object({
  id: z.uuid(),
  url: z.string(),
  name: z.string(),
  type: z.string(),
  size: z.number().int(),
  hasText: z.boolean(), // its text can be read in place
})
export type AttachedFile = z.infer<typeof AttachedFile>

export const WholeView = z.object({
  view: z.literal('whole'),
  id: z.uuid(),
  parentId: z.uuid().nullable(),
  type: z.enum(CONTRIBUTION_TYPES),
  author: AuthorView,
  threadId: z.uuid(),
  state: z.enum(['shown', 'awaitingApproval', 'scheduled', 'withdrawn']),
  withdrawn: z.boolean(),
  mayPutBack: z.boolean(), // the reader may put it back: staff always, its author within the window what they withdrew themselves
  html: z.string().nullable(), // null in a long talk: its words are fetched when they are about to be read
  words: z.number().int(),
  seq: z.number().int().nullable(), // its place among what was shown
  shownAt: z.iso.datetime(),
  showAt: z.iso.datetime().nullable(), // a timed entry, to its author
  editedAt: z.iso.datetime().nullable(),
  isNew: z.boolean(),
  nods: z.number().int(),
  nodded: z.boolean(),
  takesUp: TakesUp.nullable(),
  changeUntil: z.iso.datetime().nullable(), // the reader may edit it until then
  withdrawUntil: z.iso.datetime().nullable(), // or withdraw it
  onTop: z.boolean(),
  openToClass: z.boolean(), // a journal entry that was opened
  promptId: z.uuid().nullable(),
  title: z.string().nullable(),
  term: TermDetail.nullable(), // of a term of the lexicon
  note: NoteView.nullable(), // of a note in a margin: its passage
  files: z.array(AttachedFile),
  circle: z.uuid().nullable(), // the section or group whose talk it is in, where each talks by itself; to staff alone
  alias: z.string().nullable(), // what classmates call its author here; to staff and the author alone
  done: z.boolean().nullable(), // as staff marked it; to staff and the author alone
  points: z.number().int().nullable(), // its mark alone, hundredths; to staff alone
  sentBack: z.string().nullable(), // what staff said when they did not let it be shown yet
  version: z.number().int(),
})
export const PlaceView = z.object({
  view: z.literal('place'),
  id: z.uuid(),
  parentId: z.uuid().nullable(),
  shownAt: z.iso.datetime(),
})

/** One contribution as one reader gets it. A place holds neither words nor name. */
export const ContributionView = z.discriminatedUnion('view', [WholeView, PlaceView])
export type ContributionView = z.infer<typeof ContributionView>
export type WholeContribution = Extract<ContributionView, { view: 'whole' }>

export const DraftView = z.object({
  id: z.uuid(),
  parentId: z.uuid().nullable(),
  slot: z.string(),
  promptId: z.uuid().nullable(),
  title: z.string().nullable(),
  term: TermDetail.nullable(),
  note: NoteDetail.nullable(),
  files: z.array(AttachedFile),
  doc: z.unknown(),
  words: z.number().int(),
  takesUp: TakesUp.nullable(),
  savedAt: z.iso.datetime(),
  version: z.number().int(),
})
export type DraftView = z.infer<typeof DraftView>

/** What is said of a talk besides its contributions. */
export const ThreadHead = z.object({
  waiting: z.boolean(), // write before you read: nothing of others is in this answer, not even a count
  waitingAt: z.array(z.uuid()), // questions the reader has not answered yet, and whose answers are not in this one either
  closedToWords: z.boolean(), // students write nothing new in it
  closedThreads: z.array(z.uuid()), // threads in which students write nothing new, by their first contribution
  lastSeq: z.number().int(), // up to which place this answer goes
  more: z.boolean(), // of a long reading, when only what is read first was asked for: there is more
  // where each section or group talks by itself: all of them to staff, the reader's own to others
  circles: z.array(z.object({ id: z.uuid(), title: z.string() })),
  drafts: z.array(DraftView), // the reader's own
  checks: z.array(CheckView), // the reader's own expectations; empty for staff
  notHeard: z.array(z.string()), // given names of classmates with nothing shown; empty while waiting
})
/** A talk as its reader has it; on the way to them it is packed. */
export type ThreadView = z.infer<typeof ThreadHead> & {
  readonly contributions: ContributionView[] // in the order they were shown
}

/** Where and what somebody writes. Several texts can be begun at one place: an answer to each prompt, several entries of a blog. */
const Written = z.object({
  parentId: z.uuid().nullable(),
  slot: z.string().max(64).default(''),
  promptId: z.uuid().nullable().default(null),
  title: z.string().trim().max(200, 'A title has up to 200 characters.').nullable().default(null),
  term: TermDetail.nullable().default(null), // of a term of the lexicon: its text is the definition
  note: NoteDetail.nullable().default(null), // of a note in a margin
  fileIds: z.array(z.uuid()).max(20).default([]),
  doc: TalkDoc,
  takesUp: TakesUp.nullable().default(null),
})
export type Written = z.infer<typeof Written>

export const PostWrite = Written.extend({
  key: z.uuid(), // idempotency: the same key sent again is answered again, not done again
  showAt: z.iso.datetime().nullable().default(null), // an entry that shows itself later
})
export type PostWrite = z.infer<typeof PostWrite>
export const PostAnswer = z.object({
  id: z.uuid(),
  shownAt: z.iso.datetime(),
  state: z.enum(['shown', 'awaitingApproval', 'scheduled']),
})

export const DraftWrite = Written.extend({
  baseVersion: z.number().int().nullable(), // version last seen; null when none was
})
export type DraftWrite = z.infer<typeof DraftWrite>

/** `first`: of a long reading only the notes of the pages that are read first, and one's own. */
export const ThreadQuery = z.object({ first: z.enum(['true', 'false']).default('false') })
export const DraftTarget = z.object({ parentId: z.uuid().nullable(), slot: z.string().max(64).default('') })
export const EditWrite = z.object({
  key: z.uuid(),
  doc: TalkDoc,
  title: z.string().trim().max(200).nullable().optional(),
  term: TermDetail.optional(),
  baseVersion: z.number().int(),
})
export type EditWrite = z.infer<typeof EditWrite>
export const OwnText = z.object({
  doc: z.unknown(),
  title: z.string().nullable(),
  term: TermDetail.nullable(),
  version: z.number().int(),
})
export type OwnText = z.infer<typeof OwnText>
export const EditAnswer = z.object({ version: z.number().int() })
export const WithdrawnWrite = z.object({ withdrawn: z.boolean() })
export const NodWrite = z.object({ nodded: z.boolean() })
export type NodWrite = z.infer<typeof NodWrite>
export const NodAnswer = z.object({ nods: z.number().int(), nodded: z.boolean() })
export const VisitWrite = z.object({ seq: z.number().int().min(0) })
export const OnTopWrite = z.object({ onTop: z.boolean() })
export const ClosedToWordsWrite = z.object({ closed: z.boolean() })
export const OpenedWrite = z.object({ opened: z.boolean() })
export const ApprovalWrite = z.object({
  approved: z.boolean(),
  remark: z.string().trim().max(1000).default(''),
})
export type ApprovalWrite = z.infer<typeof ApprovalWrite>
export const IdsQuery = z.object({
  ids: z
    .string()
    .max(9000)
    .transform(list => list.split(','))
    .pipe(z.array(z.uuid()).min(1).max(200)),
})
export const TextsAnswer = z.object({ texts: z.array(z.object({ id: z.uuid(), html: z.string() })) })
export const TalkFindQuery = z.object({ q: z.string().trim().min(2, 'Two letters or more.').max(200) })
export const TalkFound = z.object({ ids: z.array(z.uuid()) })
export const Revisions = z.object({
  revisions: z.array(
    z.object({
      version: z.number().int(),
      html: z.string(),
      words: z.number().int(),
      replacedAt: z.iso.datetime(),
    }),
  ),
})
/** What open pages are told as it happens. */
export const LiveEvent = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('contribution'), contribution: ContributionView }),
  z.object({ kind: z.literal('gone'), id: z.uuid() }), // it was there for this reader and is not any more
  // a page of a wiki has changed: its text, its place, the talk about it, or who writes on it
  z.object({ kind: z.literal('page'), pageId: z.uuid() }),
  z.object({ kind: z.literal('opened') }), // more can be read than before: fetch anew
])
export type LiveEvent = z.infer<typeof LiveEvent>
