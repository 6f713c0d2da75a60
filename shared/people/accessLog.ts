import { z } from 'zod'

/** What is written down of who came in, what was taken away and what was refused, in the words people read. */
export const LOGGED_ACTS = {
  signIn: 'signed in',
  signInByCode: 'signed in with a code',
  signOut: 'signed out',
  passwordAsked: 'asked for a new password',
  passwordSet: 'chose a password by a link',
  passwordChanged: 'changed the password',
  addressChanged: 'asked for another address',
  addressConfirmed: 'confirmed an address',
  secondStepOn: 'turned the second step on',
  secondStepOff: 'turned the second step off',
  recoveryCodesMade: 'made recovery codes',
  sessionsEnded: 'signed other browsers out',
  firstAccount: 'made the first account',
  codeMade: 'made a joining code',
  codeClosed: 'closed a joining code',
  joined: 'joined by a code',
  invited: 'sent an invitation',
  personAdded: 'added a person',
  roleChanged: 'changed a person or their role',
  rosterTaken: 'took a roster in',
  seenAsStudent: 'looked as a student',
  marksTaken: 'took marks away',
  archiveTaken: 'took an archive away',
  archiveRestored: 'brought an archive back',
  ownDataTaken: 'took their own data away',
  personDataTaken: 'took a person’s data away',
  personErased: 'erased a person',
  exported: 'took an export away',
  reviewsReleased: 'released reviews',
  marksReturned: 'returned marks',
  refused: 'was refused',
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
