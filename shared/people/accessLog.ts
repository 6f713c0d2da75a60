import { z } from 'zod'

/**
 * What is written down of who came in, what was taken away and what was refused, in the words people read.
 * Done or refused is said beside it.
 */
export const LOGGED_ACTS = {
  signIn: 'signing in',
  codeAsked: 'signing in: the password was right, a code is asked for',
  signInByCode: 'signing in with a code',
  signInByPasskey: 'signing in with a passkey',
  signOut: 'signing out',
  passwordAsked: 'asking for a new password',
  passwordSet: 'choosing a password by a link',
  passwordChanged: 'changing the password',
  addressChanged: 'asking for another address',
  addressConfirmed: 'confirming an address',
  secondStepOn: 'turning the second step on',
  secondStepOff: 'turning the second step off',
  passkeyAdded: 'adding a passkey',
  passkeyRemoved: 'removing a passkey',
  recoveryCodesMade: 'making recovery codes',
  sessionsEnded: 'signing other browsers out',
  firstAccount: 'making the first account',
  codeMade: 'making a joining code',
  codeClosed: 'closing a joining code',
  joined: 'joining by a code',
  invited: 'sending invitations',
  personAdded: 'adding a person',
  roleChanged: 'changing a person or their role',
  rosterTaken: 'taking a roster in',
  seenAsStudent: 'looking as a student',
  marksTaken: 'taking marks away',
  archiveTaken: 'taking an archive away',
  archiveRestored: 'bringing an archive back',
  ownDataTaken: 'taking one’s own data away',
  personDataTaken: 'taking a person’s data away',
  personErased: 'erasing a person',
  exported: 'taking an export away',
  reviewsReleased: 'releasing reviews',
  marksReturned: 'returning marks',
  refused: 'a page or an act that is not theirs',
} as const
export type LoggedAct = keyof typeof LOGGED_ACTS
const ACTS = Object.keys(LOGGED_ACTS) as [LoggedAct, ...LoggedAct[]] // the keys of that object

export const AccessLogQuery = z.object({
  find: z.string().trim().max(200).default(''), // in names, addresses, seminars and what it was about
  act: z.enum(ACTS).optional(),
  before: z.uuid().optional(), // entries older than this one
})
export const AccessLogEntry = z.object({
  id: z.uuid(),
  at: z.iso.datetime(),
  act: z.enum(ACTS),
  done: z.boolean(), // false: refused
  who: z.string().nullable(), // name; null: nobody was signed in
  seminar: z.string().nullable(),
  about: z.string(), // an address that was tried, or the path of what was asked for
  client: z.string(), // network address
})
export type AccessLogEntry = z.infer<typeof AccessLogEntry>
export const AccessLog = z.object({ entries: z.array(AccessLogEntry), more: z.boolean() })
export type AccessLog = z.infer<typeof AccessLog>
