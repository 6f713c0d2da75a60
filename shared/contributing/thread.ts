import { z } from 'zod'
import { CONTRIBUTION_TYPES } from '../../core/contributing/contribution'
import { CheckView } from './activity'
import { RichDoc } from './richDoc'

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

/** One contribution as one reader gets it. A place holds neither words nor name. */
export const ContributionView = z.discriminatedUnion('view', [
  z.object({
    view: z.literal('whole'),
    id: z.uuid(),
    parentId: z.uuid().nullable(),
    type: z.enum(CONTRIBUTION_TYPES),
    author: AuthorView,
    withdrawn: z.boolean(),
    html: z.string(),
    text: z.string(),
    words: z.number().int(),
    shownAt: z.iso.datetime(),
    editedAt: z.iso.datetime().nullable(),
    isNew: z.boolean(),
    nods: z.number().int(),
    nodded: z.boolean(),
    takesUp: TakesUp.nullable(),
    changeUntil: z.iso.datetime().nullable(), // the reader may edit or withdraw it until then
    version: z.number().int(),
  }),
  z.object({ view: z.literal('place'), id: z.uuid(), parentId: z.uuid().nullable(), shownAt: z.iso.datetime() }),
])
export type ContributionView = z.infer<typeof ContributionView>
export type WholeContribution = Extract<ContributionView, { view: 'whole' }>

export const DraftView = z.object({
  id: z.uuid(),
  parentId: z.uuid().nullable(),
  doc: z.unknown(),
  words: z.number().int(),
  takesUp: TakesUp.nullable(),
  savedAt: z.iso.datetime(),
  version: z.number().int(),
})
export type DraftView = z.infer<typeof DraftView>

export const ThreadView = z.object({
  waiting: z.boolean(), // write before you read: nothing of others is in this answer, not even a count
  contributions: z.array(ContributionView), // in the order they were shown
  drafts: z.array(DraftView), // the reader's own
  checks: z.array(CheckView), // the reader's own expectations; empty for staff
  notHeard: z.array(z.string()), // given names of classmates with nothing shown; empty while waiting
})
export type ThreadView = z.infer<typeof ThreadView>

export const PostWrite = z.object({
  key: z.uuid(), // idempotency: the same key sent again is answered again, not done again
  parentId: z.uuid().nullable(),
  doc: RichDoc,
  takesUp: TakesUp.nullable().default(null),
})
export type PostWrite = z.infer<typeof PostWrite>
export const PostAnswer = z.object({ id: z.uuid(), shownAt: z.iso.datetime() })

export const DraftWrite = z.object({
  parentId: z.uuid().nullable(),
  doc: RichDoc,
  takesUp: TakesUp.nullable().default(null),
  baseVersion: z.number().int().nullable(), // version last seen; null when none was
})
export type DraftWrite = z.infer<typeof DraftWrite>

export const DraftPlace = z.object({ parentId: z.uuid().nullable() })
export const EditWrite = z.object({ key: z.uuid(), doc: RichDoc, baseVersion: z.number().int() })
export type EditWrite = z.infer<typeof EditWrite>
export const EditAnswer = z.object({ version: z.number().int() })
export const WithdrawnWrite = z.object({ withdrawn: z.boolean() })
export const NodWrite = z.object({ nodded: z.boolean() })
export type NodWrite = z.infer<typeof NodWrite>
export const NodAnswer = z.object({ nods: z.number().int(), nodded: z.boolean() })
export const Done = z.object({ done: z.boolean() })
