import { z } from 'zod'
import { ROSTER_COLUMNS } from '#core/people/roster/rosterHeadings'
import { EmailAddress, FamilyName, GivenName } from './account'

export const PEOPLE_ROLES = ['instructor', 'assistant', 'student', 'observer'] as const
export const PersonView = z.object({
  id: z.uuid(), // enrolment
  name: z.string(),
  givenName: z.string(),
  familyName: z.string(),
  email: z.string(),
  initials: z.string(),
  role: z.enum(PEOPLE_ROLES),
  sectionId: z.uuid().nullable(),
  studentNumber: z.string().nullable(),
  state: z.enum(['active', 'withdrawn']), // practice students are nobody's list
  canSignIn: z.boolean(),
  invitedAt: z.iso.datetime().nullable(),
  contributions: z.number().int(),
  isMe: z.boolean(),
})
export type PersonView = z.infer<typeof PersonView>
export const JoiningCodeView = z.object({
  id: z.uuid(),
  code: z.string(),
  role: z.enum(PEOPLE_ROLES),
  sectionId: z.uuid().nullable(),
  expiresAt: z.iso.datetime(),
  most: z.number().int(),
  used: z.number().int(),
  open: z.boolean(),
})
export type JoiningCodeView = z.infer<typeof JoiningCodeView>
export const PeopleView = z.object({
  people: z.array(PersonView),
  codes: z.array(JoiningCodeView),
  sections: z.array(z.object({ id: z.uuid(), title: z.string() })),
  mayManage: z.boolean(),
})
export type PeopleView = z.infer<typeof PeopleView>

export const EnrolmentParams = z.object({ seminarId: z.uuid(), enrolmentId: z.uuid() })
export const PersonWrite = z.object({
  key: z.uuid(),
  givenName: GivenName,
  familyName: FamilyName,
  email: EmailAddress,
  role: z.enum(PEOPLE_ROLES),
  sectionId: z.uuid().nullable(),
  invite: z.boolean(),
})
export type PersonWrite = z.infer<typeof PersonWrite>
export const PersonAnswer = z.object({ id: z.uuid() })
export const PersonChange = z.object({
  role: z.enum(PEOPLE_ROLES).optional(),
  sectionId: z.uuid().nullable().optional(),
  state: z.enum(['active', 'withdrawn']).optional(),
})
export type PersonChange = z.infer<typeof PersonChange>
export const InviteWrite = z.object({
  key: z.uuid(),
  enrolmentIds: z.array(z.uuid()).min(1, 'Nobody was chosen.').max(5000),
})
export const InviteAnswer = z.object({ invited: z.number().int() })

export const CodeWrite = z.object({
  key: z.uuid(),
  role: z.enum(['student', 'assistant', 'observer']),
  sectionId: z.uuid().nullable(),
  days: z.number().int().min(1, 'A code is good for a day or more.').max(366),
  most: z.number().int().min(1, 'A code lets one person in or more.').max(5000),
})
export type CodeWrite = z.infer<typeof CodeWrite>
export const CodeIdParams = z.object({ seminarId: z.uuid(), codeId: z.uuid() })

/** A roster file, in base64. */
export const RosterFile = z.object({
  name: z.string().max(255),
  base64: z
    .string()
    .max(8_000_000, 'This file is larger than 6 MB. Split it, or take columns out that are not needed.'),
  columns: z.array(z.enum(ROSTER_COLUMNS).nullable()).max(200).optional(), // what each column holds, where somebody said so
})
export const RosterWrite = RosterFile.extend({
  key: z.uuid(),
  withdrawMissing: z.boolean(),
  invite: z.boolean(),
})
const Row = z.object({
  line: z.number().int(),
  email: z.string(),
  givenName: z.string(),
  familyName: z.string(),
  section: z.string().nullable(),
  group: z.string().nullable(),
  studentNumber: z.string().nullable(),
  role: z.enum(PEOPLE_ROLES),
})
const Changed = z.object({
  enrolmentId: z.uuid(),
  row: Row,
  changes: z.array(z.object({ field: z.string(), from: z.string().nullable(), to: z.string().nullable() })),
})
/** What a roster file would change; nothing is written yet. */
export const RosterPreview = z.object({
  added: z.array(Row),
  changed: z.array(Changed),
  back: z.array(Changed),
  same: z.number().int(),
  missing: z.array(
    z.object({ enrolmentId: z.uuid(), givenName: z.string(), familyName: z.string(), email: z.string() }),
  ),
  faults: z.array(z.object({ line: z.number().int(), code: z.string(), sentence: z.string() })),
  newSections: z.array(z.string()),
  groups: z
    .object({
      plan: z.string(), // by the heading of the column
      isNew: z.boolean(),
      newGroups: z.array(z.string()),
      placed: z.number().int(), // people who would come into a group of it, or into another
      onlyPlaced: z.number().int(), // those of them of whom nothing else would change
    })
    .nullable(), // null: no column holds groups
  columns: z.array(z.object({ heading: z.string(), field: z.enum(ROSTER_COLUMNS).nullable() })), // of a table; of an archive none
})
export type RosterPreview = z.infer<typeof RosterPreview>
export const RosterAnswer = z.object({
  added: z.number().int(),
  changed: z.number().int(),
  back: z.number().int(),
  withdrawn: z.number().int(),
  placed: z.number().int(), // into the groups of a column
  passedOver: z.number().int(),
})
export type RosterAnswer = z.infer<typeof RosterAnswer>
