import type { Row } from './roles'
import {
  CORRESPONDENTS,
  MANAGERS,
  MEMBERS,
  STAFF,
  STAFF_OR_NOTHING,
  STUDENTS,
  breakwater,
  conversation,
  dredge,
  key,
  managersGet,
  ruleOf,
  seminar,
  staffGet,
} from './roles'
import * as closingEndpoints from '#shared/closing/endpoints'
import * as keepingEndpoints from '#shared/keeping/endpoints'
import * as markingEndpoints from '#shared/marking/endpoints'
import * as messagingEndpoints from '#shared/messaging/endpoints'
import * as peopleEndpoints from '#shared/people/endpoints'
import * as planningEndpoints from '#shared/planning/endpoints'
import * as voicesEndpoints from '#shared/voices/endpoints'

/** What each role is answered at the routes of seminar. */
export const SEMINAR_ROUTES: readonly Row[] = [
  {
    endpoint: peopleEndpoints.readSession,
    path: () => '/api/session',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: peopleEndpoints.signIn,
    path: () => '/api/session',
    body: () => ({ email: 'liv@northmere.example', password: 'wrong' }),
    expected: [401, 401, 401, 401, 401, 401, 401],
  },
  {
    endpoint: peopleEndpoints.readDemoPeople,
    path: () => '/api/demo/people',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
  {
    endpoint: peopleEndpoints.signInAsDemoPerson,
    path: () => '/api/demo/session',
    body: () => ({ personId: key() }),
    expected: [404, 404, 404, 404, 404, 404, 404],
  },
  { endpoint: peopleEndpoints.readSeminar, path: seminar(), expected: MEMBERS },
  { endpoint: planningEndpoints.readTermPlan, path: seminar('/plan'), expected: MEMBERS },
  { endpoint: planningEndpoints.readOwnWeek, path: seminar('/week'), expected: STUDENTS },
  { endpoint: markingEndpoints.readOwnLetters, path: seminar('/letters'), expected: MEMBERS },
  { endpoint: voicesEndpoints.readVoices, path: seminar('/voices'), expected: STAFF },
  { endpoint: voicesEndpoints.downloadVoices, path: seminar('/voices/table'), expected: STAFF },
  {
    endpoint: voicesEndpoints.readStudent,
    path: async w => `/api/seminars/${w.seminar.id}/voices/${(await w.enrolment('liv')).id}`,
    expected: STAFF,
  },
  { endpoint: voicesEndpoints.readPresence, path: seminar('/presence'), expected: STAFF },
  {
    endpoint: voicesEndpoints.readPresenceActs,
    path: async w => `/api/seminars/${w.seminar.id}/presence/acts?student=${(await w.enrolment('liv')).id}`,
    expected: STAFF,
  },
  {
    endpoint: voicesEndpoints.downloadPresenceLog,
    path: seminar('/presence/log?as=csv'),
    expected: STAFF,
  },
  { endpoint: markingEndpoints.readOutcomes, path: seminar('/outcomes'), expected: MANAGERS },
  {
    endpoint: markingEndpoints.downloadOutcomes,
    path: seminar('/outcomes/table?by=student'),
    expected: MANAGERS,
  },
  { endpoint: messagingEndpoints.readMessageDraft, path: seminar('/messages/draft'), expected: STAFF },
  {
    endpoint: messagingEndpoints.sendMessages,
    path: seminar('/messages'),
    body: () => ({
      key: key(),
      activityId: null,
      subject: 'A',
      text: 'B',
      people: [{ id: key(), text: null }],
    }),
    expected: staffGet(422),
  },
  {
    endpoint: messagingEndpoints.readMessageThreads,
    path: seminar('/messages'),
    expected: CORRESPONDENTS,
  },
  {
    endpoint: messagingEndpoints.readMessageThread,
    path: conversation(),
    expected: STAFF_OR_NOTHING,
  },
  {
    endpoint: messagingEndpoints.replyToMessage,
    path: conversation('/replies'),
    body: () => ({ key: key(), text: 'A line.' }),
    expected: STAFF_OR_NOTHING,
  },
  {
    endpoint: messagingEndpoints.takeMessagesBack,
    path: w => `/api/seminars/${w.seminar.id}/messages/sendings/${key()}`,
    expected: staffGet(404),
  },
  {
    endpoint: messagingEndpoints.readRules,
    path: seminar('/messages/rules'),
    expected: STAFF,
  },
  {
    endpoint: messagingEndpoints.makeRule,
    path: seminar('/messages/rules'),
    body: () => ({ activityId: null, daysBefore: 1, atTime: '12:00', subject: 'A', text: 'B' }),
    expected: MANAGERS,
  },
  {
    endpoint: messagingEndpoints.saveRule,
    path: ruleOf(),
    body: () => ({ activityId: null, daysBefore: 1, atTime: '12:00', subject: 'A', text: 'B' }),
    expected: MANAGERS,
  },
  {
    endpoint: messagingEndpoints.switchRule,
    path: ruleOf('/on'),
    body: () => ({ on: true, version: 99 }),
    expected: managersGet(409),
  },
  {
    endpoint: messagingEndpoints.deleteRule,
    path: w => `/api/seminars/${w.seminar.id}/messages/rules/${key()}`,
    expected: managersGet(404),
  },
  {
    endpoint: closingEndpoints.readClosingQuestions,
    path: breakwater('/closing'),
    expected: [401, 404, 404, 200, 200, 200, 200],
  },
  {
    endpoint: closingEndpoints.setClosingQuestions,
    path: breakwater('/closing'),
    body: () => ({
      questions: [{ id: key(), kind: 'open', text: 'A?' }],
      named: true,
      opensAt: '2026-10-12T06:00:00Z',
      closesAt: '2026-10-15T21:59:00Z',
      baseVersion: 99,
    }),
    expected: managersGet(409),
  },
  {
    endpoint: closingEndpoints.removeClosingQuestions,
    path: dredge('/closing'),
    expected: managersGet(404),
  },
  {
    endpoint: closingEndpoints.answerClosingQuestions,
    path: breakwater('/closing/answers'),
    body: () => ({ answers: {} }),
    expected: [401, 404, 403, 409, 409, 403, 403],
  },
  {
    endpoint: closingEndpoints.downloadClosingAnswers,
    path: breakwater('/closing/export'),
    expected: STAFF,
  },
  { endpoint: keepingEndpoints.downloadArchive, path: seminar('/archive'), expected: MANAGERS },
  {
    endpoint: keepingEndpoints.restoreArchive,
    path: () => '/api/archives',
    body: () => ({}),
    expected: [401, 403, 403, 403, 403, 403, 422],
  },
  { endpoint: keepingEndpoints.downloadOwnData, path: seminar('/own-data'), expected: STUDENTS },
  {
    endpoint: keepingEndpoints.downloadDataOfPerson,
    path: async w => `/api/seminars/${w.seminar.id}/people/${(await w.enrolment('liv')).id}/data`,
    expected: MANAGERS,
  },
  {
    endpoint: keepingEndpoints.previewErasure,
    path: async w => `/api/seminars/${w.seminar.id}/people/${(await w.enrolment('liv')).id}/erase`,
    expected: managersGet(200),
  },
  {
    endpoint: keepingEndpoints.erasePerson,
    path: async w => `/api/seminars/${w.seminar.id}/people/${(await w.enrolment('liv')).id}/erase`,
    body: () => ({ name: 'Somebody Else' }),
    expected: managersGet(422),
  },
]
