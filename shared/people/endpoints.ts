import { endpoint } from '../http/endpoint'
import { Done } from '../http/done'
import {
  AccountView,
  FirstAccountWrite,
  CodeParams,
  Installation,
  JoinAnswer,
  JoinView,
  JoinWrite,
  MailChoiceWrite,
  PasswordAsk,
  PasswordLinkView,
  PasswordWrite,
  SecretParams,
} from './account'
import {
  GroupDeal,
  GroupPlanMake,
  GroupPlanParams,
  GroupPlanWrite,
  GroupsView,
  OwnGroupWrite,
} from './groups'
import {
  CodeIdParams,
  CodeWrite,
  EnrolmentParams,
  InviteAnswer,
  InviteWrite,
  PeopleView,
  PersonAnswer,
  PersonChange,
  PersonWrite,
  RosterAnswer,
  RosterFile,
  RosterPreview,
  RosterWrite,
} from './people'
import { SeminarParams, SeminarShell, StudentsEyeWrite } from './seminar'
import { DemoPeople, DemoSignIn, SessionAnswer, SignIn, SignInAnswer } from './session'
import {
  ArchivedWrite,
  SeminarCopy,
  SeminarMade,
  SeminarWrite,
  SettingsView,
  SettingsWrite,
} from './settings'

export const closeCalendar = endpoint({
  method: 'DELETE',
  path: '/api/account/calendar',
  summary: "Closes the calendar address of one's account",
  answer: AccountView,
})

export const makeCalendar = endpoint({
  method: 'POST',
  path: '/api/account/calendar',
  summary: "Makes a new calendar address for one's account; an older one stops working",
  answer: AccountView,
})

export const readAccount = endpoint({
  method: 'GET',
  path: '/api/account',
  summary: "One's own account",
  answer: AccountView,
})

export const makeFirstAccount = endpoint({
  method: 'POST',
  path: '/api/account',
  logged: 'firstAccount',
  summary: 'Makes the first account of an empty installation',
  body: FirstAccountWrite,
  answer: Done,
})

export const chooseMail = endpoint({
  method: 'PUT',
  path: '/api/account/mail',
  summary: 'Chooses what mail one gets',
  body: MailChoiceWrite,
  answer: AccountView,
})

export const readDemoPeople = endpoint({
  method: 'GET',
  path: '/api/demo/people',
  summary: 'People of the demo one can sign in as',
  answer: DemoPeople,
})

export const signInAsDemoPerson = endpoint({
  method: 'POST',
  path: '/api/demo/session',
  summary: 'Signs in as somebody of the demo',
  body: DemoSignIn,
  answer: Done,
})

export const readInstallation = endpoint({
  method: 'GET',
  path: '/api/installation',
  summary: 'Whether this installation has any account yet',
  answer: Installation,
})

export const readJoiningCode = endpoint({
  method: 'GET',
  path: '/api/join/:code',
  summary: 'What a joining code opens',
  params: CodeParams,
  answer: JoinView,
})

export const joinSeminar = endpoint({
  method: 'POST',
  path: '/api/join/:code',
  logged: 'joined',
  summary: 'Joins a seminar by its code',
  params: CodeParams,
  body: JoinWrite,
  answer: JoinAnswer,
})

export const readPasswordLink = endpoint({
  method: 'GET',
  path: '/api/password/:secret',
  summary: 'Whose password a link sets',
  params: SecretParams,
  answer: PasswordLinkView,
})

export const setPassword = endpoint({
  method: 'POST',
  path: '/api/password/:secret',
  logged: 'passwordSet',
  summary: 'Sets a password by a link',
  params: SecretParams,
  body: PasswordWrite,
  answer: Done,
})

export const askForPassword = endpoint({
  method: 'POST',
  path: '/api/password',
  logged: 'passwordAsked',
  summary: 'Asks for a link that sets a new password',
  body: PasswordAsk,
  answer: Done,
})

export const archiveSeminar = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/archived',
  summary: 'Archives a seminar, or opens it again',
  params: SeminarParams,
  body: ArchivedWrite,
  answer: Done,
})

export const endSilence = endpoint({
  method: 'DELETE',
  path: '/api/seminars/:seminarId/silence',
  summary: 'Lets people of a seminar that was imported be told again',
  params: SeminarParams,
  answer: Done,
})

export const closeJoiningCode = endpoint({
  method: 'DELETE',
  path: '/api/seminars/:seminarId/codes/:codeId',
  logged: 'codeClosed',
  summary: 'Closes a joining code',
  params: CodeIdParams,
  answer: Done,
})

export const makeJoiningCode = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/codes',
  logged: 'codeMade',
  summary: 'Makes a joining code',
  params: SeminarParams,
  body: CodeWrite,
  answer: PersonAnswer,
})

export const copySeminar = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/copy',
  summary: 'Copies what is planned into a new term',
  params: SeminarParams,
  body: SeminarCopy,
  answer: SeminarMade,
})

export const dealGroups = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/groups/:planId/deal',
  summary: 'Divides students into groups',
  params: GroupPlanParams,
  body: GroupDeal,
  answer: PersonAnswer,
})

export const deleteGroupPlan = endpoint({
  method: 'DELETE',
  path: '/api/seminars/:seminarId/groups/:planId',
  summary: 'Deletes a division into groups',
  params: GroupPlanParams,
  answer: Done,
})

export const saveGroupPlan = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/groups/:planId',
  summary: 'Changes a division into groups',
  params: GroupPlanParams,
  body: GroupPlanWrite,
  answer: PersonAnswer,
})

export const chooseGroup = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/groups/:planId/mine',
  summary: "Chooses one's own group",
  params: GroupPlanParams,
  body: OwnGroupWrite,
  answer: Done,
})

export const readGroups = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/groups',
  summary: 'The divisions into groups',
  params: SeminarParams,
  answer: GroupsView,
})

export const makeGroupPlan = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/groups',
  summary: 'Makes a division into groups',
  params: SeminarParams,
  body: GroupPlanMake,
  answer: PersonAnswer,
})

export const readSeminar = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId',
  summary: "A seminar: its term, one's role in it, its activities",
  params: SeminarParams,
  answer: SeminarShell,
})

export const changePerson = endpoint({
  method: 'PATCH',
  path: '/api/seminars/:seminarId/people/:enrolmentId',
  logged: 'roleChanged',
  summary: 'Changes what is kept of somebody in a seminar',
  params: EnrolmentParams,
  body: PersonChange,
  answer: Done,
})

export const readPeople = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/people',
  summary: 'The people of a seminar',
  params: SeminarParams,
  answer: PeopleView,
})

export const addPerson = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/people',
  logged: 'personAdded',
  summary: 'Adds somebody to a seminar',
  params: SeminarParams,
  body: PersonWrite,
  answer: PersonAnswer,
})

export const invitePeople = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/people/invite',
  logged: 'invited',
  summary: 'Sends invitations',
  params: SeminarParams,
  body: InviteWrite,
  answer: InviteAnswer,
})

export const importRoster = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/roster',
  logged: 'rosterTaken',
  summary: 'Brings people in from a table',
  params: SeminarParams,
  body: RosterWrite,
  largest: 8_400_000,
  answer: RosterAnswer,
  progress: true,
})

export const previewRoster = endpoint({
  method: 'POST',
  path: '/api/seminars/:seminarId/roster/preview',
  summary: 'What bringing people in from a table would change',
  params: SeminarParams,
  body: RosterFile,
  largest: 8_400_000,
  answer: RosterPreview,
})

export const readSettings = endpoint({
  method: 'GET',
  path: '/api/seminars/:seminarId/settings',
  summary: 'The settings of a seminar',
  params: SeminarParams,
  answer: SettingsView,
})

export const saveSettings = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/settings',
  summary: 'Changes the settings of a seminar',
  params: SeminarParams,
  body: SettingsWrite,
  answer: SettingsView,
})

export const lookAsStudent = endpoint({
  method: 'PUT',
  path: '/api/seminars/:seminarId/students-eye',
  logged: 'seenAsStudent',
  summary: 'Looks at the seminar as a student sees it, or no longer',
  params: SeminarParams,
  body: StudentsEyeWrite,
  answer: Done,
})

export const makeSeminar = endpoint({
  method: 'POST',
  path: '/api/seminars',
  summary: 'Sets up a seminar',
  body: SeminarWrite,
  answer: SeminarMade,
})

export const signOut = endpoint({
  method: 'DELETE',
  path: '/api/session',
  logged: 'signOut',
  summary: 'Signs out',
  answer: Done,
})

export const readSession = endpoint({
  method: 'GET',
  path: '/api/session',
  summary: 'Who is signed in',
  answer: SessionAnswer,
})

export const signIn = endpoint({
  method: 'POST',
  path: '/api/session',
  logged: 'signIn',
  summary: 'Signs in by address and password; who has a second step shows its code next',
  body: SignIn,
  answer: SignInAnswer,
})
