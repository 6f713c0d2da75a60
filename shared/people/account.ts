import { z } from 'zod'

export const GivenName = z.string().trim().min(1, 'Write the first name.').max(80)
/** Empty where somebody has one name alone. */
export const FamilyName = z.string().trim().max(80)
export const EmailAddress = z
  .string()
  .trim()
  .toLowerCase()
  .max(254)
  .regex(/^[^\s@]+@[^\s@]+\.[^\s@]{2,}$/, 'Write an e-mail address like liv@northmere.example.')
export const NewPassword = z.string().min(10, 'Choose a password of ten characters or more.').max(200)

/** What this installation has and lacks; known to everyone, so that the first page can say the right thing. */
export const Installation = z.object({ empty: z.boolean(), demo: z.boolean(), mailroom: z.boolean() })
export type Installation = z.infer<typeof Installation>

export const AccountWrite = z.object({
  givenName: GivenName,
  familyName: FamilyName,
  email: EmailAddress,
  password: NewPassword,
})
export type AccountWrite = z.infer<typeof AccountWrite>

/** The first account of an installation; its code stands on the console of the server. */
export const FirstAccountWrite = AccountWrite.extend({
  code: z.string().trim().min(1, 'Write the code from the console of the server.').max(80),
})
export type FirstAccountWrite = z.infer<typeof FirstAccountWrite>

export const MAIL_CHOICES = ['atOnce', 'daily', 'never'] as const
export const AccountView = z.object({
  name: z.string(),
  givenName: z.string(),
  familyName: z.string(),
  email: z.string(),
  isConfirmed: z.boolean(), // whether the address has proved to be theirs
  emailAskedFor: z.string().nullable(), // the address that takes its place once it is confirmed
  hasPassword: z.boolean(),
  mailChoice: z.enum(MAIL_CHOICES),
  calendarPath: z.string().nullable(), // path of the private calendar feed; null while there is none
  foundsSeminars: z.boolean(),
})
export type AccountView = z.infer<typeof AccountView>
export const MailChoiceWrite = z.object({ mailChoice: z.enum(MAIL_CHOICES) })

export const CodeParams = z.object({ code: z.string().regex(/^[A-Z0-9-]{4,20}$/i) })
export const SecretParams = z.object({ secret: z.string().min(20).max(80) })
/** What whoever holds a joining code learns before joining. */
export const JoinView = z.object({
  title: z.string(),
  code: z.string(),
  college: z.string(),
  section: z.string().nullable(),
  seminarId: z.uuid(),
  already: z.boolean(),
})
export type JoinView = z.infer<typeof JoinView>
export const JoinWrite = z.object({ account: AccountWrite.nullable() }) // null: as who is signed in
export const JoinAnswer = z.object({ seminarId: z.uuid() })

export const PasswordLinkView = z.object({ name: z.string(), email: z.string() })
export const PasswordWrite = z.object({ password: NewPassword })
export const PasswordAsk = z.object({ email: EmailAddress })

export const NameWrite = z.object({ givenName: GivenName, familyName: FamilyName })
export type NameWrite = z.infer<typeof NameWrite>
export const PasswordChange = z.object({ current: z.string().max(200), password: NewPassword })
export const EmailChange = z.object({ email: EmailAddress, password: z.string().max(200) })
export const AddressLinkView = z.object({ name: z.string(), email: z.string() })

/** A browser in which somebody is signed in. */
export const SessionRow = z.object({
  id: z.uuid(),
  agent: z.string(), // what the browser calls itself
  startedAt: z.iso.datetime(),
  lastSeenAt: z.iso.datetime(), // to a few minutes
  isThis: z.boolean(),
})
export type SessionRow = z.infer<typeof SessionRow>
export const SessionList = z.object({ sessions: z.array(SessionRow) })
export type SessionList = z.infer<typeof SessionList>
export const SessionParams = z.object({ sessionId: z.uuid() })
export const SessionsEnded = z.object({ ended: z.number().int() })
