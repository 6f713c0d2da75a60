import type { Row } from './roles'
import {
  MANAGERS,
  MEMBERS,
  STAFF,
  anOutcome,
  base64,
  dredge,
  key,
  managersGet,
  pixel,
  rubric,
  seminar,
  times,
} from './roles'
import * as filesEndpoints from '#shared/files/endpoints'
import * as markingEndpoints from '#shared/marking/endpoints'
import * as messagingEndpoints from '#shared/messaging/endpoints'
import * as peopleEndpoints from '#shared/people/endpoints'
import * as planningEndpoints from '#shared/planning/endpoints'

/** What each role is answered at the routes of planning. */
export const PLANNING_ROUTES: readonly Row[] = [
  { endpoint: markingEndpoints.readLibrary, path: seminar('/library'), expected: STAFF },
  {
    endpoint: markingEndpoints.importRubric,
    path: seminar('/library/import'),
    body: () => ({ key: key(), name: 'o.csv', base64: base64('code,statement\nX 1,Reads.\n') }),
    expected: MANAGERS,
  },
  {
    endpoint: markingEndpoints.addOutcome,
    path: seminar('/outcomes'),
    body: () => ({ key: key(), code: 'X 9', statement: 'Reads a toll roll.' }),
    expected: MANAGERS,
  },
  {
    endpoint: markingEndpoints.changeOutcome,
    path: async w => `${seminar('/outcomes')(w)}/${(await anOutcome(w)).id}`,
    body: () => ({
      ...{ key: key(), baseVersion: 1, code: 'X 9', retired: false },
      statement: 'Reads a toll roll aloud.',
    }),
    expected: MANAGERS,
  },
  {
    endpoint: markingEndpoints.makeRubric,
    path: seminar('/rubrics'),
    body: () => ({
      key: key(),
      rubric: {
        title: 'R',
        criteria: [
          {
            title: 'C',
            scope: 'own',
            weight: 1,
            suggestFrom: null,
            outcomes: [],
            levels: [{ title: 'L', points: 100, pointsFrom: null, descriptor: '' }],
          },
        ],
      },
    }),
    expected: MANAGERS,
  },
  {
    endpoint: planningEndpoints.makeActivity,
    path: seminar('/activities'),
    body: () => ({ id: key(), kind: 'discussion', week: 7, unitId: null, templateId: null }),
    expected: MANAGERS,
  },
  {
    endpoint: planningEndpoints.orderTermPlan,
    path: seminar('/plan/order'),
    body: () => ({ key: key(), activityId: key(), unitId: null, beforeId: null }),
    expected: managersGet(422),
  },
  {
    endpoint: filesEndpoints.addSeminarFile,
    path: seminar('/files'),
    body: () => ({ id: key(), name: 'p.png', base64: pixel, transcript: null }),
    expected: STAFF,
  },
  { endpoint: planningEndpoints.findInSeminar, path: seminar('/find?q=toll'), expected: MEMBERS },
  { endpoint: messagingEndpoints.readNotices, path: seminar('/notices'), expected: MEMBERS },
  { endpoint: messagingEndpoints.recordNoticesSeen, path: seminar('/notices/seen'), expected: MEMBERS },
  { endpoint: planningEndpoints.readPlannedActivity, path: dredge('/plan'), expected: MANAGERS },
  {
    endpoint: planningEndpoints.changePlannedActivity,
    path: dredge('/plan'),
    body: () => ({ key: key(), baseVersion: 99, change: {}, tell: false }),
    expected: managersGet(409),
  },
  {
    endpoint: planningEndpoints.readPlanEffect,
    path: dredge('/plan/effect'),
    body: () => ({ change: {} }),
    expected: MANAGERS,
  },
  {
    endpoint: planningEndpoints.publishActivity,
    path: dredge('/publish'),
    body: () => ({ key: key(), baseVersion: 99, opens: 'now', tell: false }),
    expected: managersGet(409),
  },
  {
    endpoint: planningEndpoints.unpublishActivity,
    path: dredge('/unpublish'),
    body: () => ({ key: key(), baseVersion: 99 }),
    expected: managersGet(409),
  },
  {
    endpoint: planningEndpoints.changeSchedule,
    path: dredge('/schedule'),
    body: () => ({ key: key(), baseVersion: 99, ...times }),
    expected: managersGet(409),
  },
  {
    endpoint: planningEndpoints.beginPhase,
    path: dredge('/begin'),
    body: () => ({ key: key(), act: 'endHandIn', tell: false }),
    expected: managersGet(409), // nothing is reviewed in it
  },
  {
    endpoint: planningEndpoints.lockActivity,
    path: dredge('/locked'),
    body: () => ({ locked: false }),
    expected: MANAGERS,
  },
  {
    endpoint: planningEndpoints.copyActivity,
    path: dredge('/copy'),
    body: w => ({ id: key(), seminarId: w.seminar.id, week: null, asTemplate: false }),
    expected: MANAGERS,
  },
  { endpoint: planningEndpoints.deleteActivity, path: dredge(), expected: managersGet(409) },
  {
    endpoint: planningEndpoints.giveExtension,
    path: async w => `/api/activities/${w.dredge.id}/extensions/${(await w.enrolment('nico')).id}`,
    body: () => ({ dueAt: '2026-10-20T21:59:00Z', reason: 'ill' }),
    expected: MANAGERS,
  },
  {
    endpoint: planningEndpoints.removeExtension,
    path: async w => `/api/activities/${w.dredge.id}/extensions/${(await w.enrolment('nico')).id}`,
    expected: MANAGERS,
  },
  {
    endpoint: markingEndpoints.saveRubric,
    path: rubric(),
    body: () => ({
      key: key(),
      baseRevision: 99,
      rubric: {
        title: 'R',
        criteria: [
          {
            title: 'C',
            scope: 'own',
            weight: 1,
            suggestFrom: null,
            outcomes: [],
            levels: [{ title: 'L', points: 100, pointsFrom: null, descriptor: '' }],
          },
        ],
      },
    }),
    expected: managersGet(409),
  },
  { endpoint: markingEndpoints.exportRubric, path: rubric('/export?form=json'), expected: STAFF },
  { endpoint: markingEndpoints.removeRubric, path: rubric(), expected: MANAGERS },
  { endpoint: markingEndpoints.restoreRubric, path: rubric('/back'), expected: MANAGERS },
  {
    endpoint: filesEndpoints.readFile,
    path: () => `/api/files/${key()}`,
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    endpoint: filesEndpoints.readFileText,
    path: () => `/api/files/${key()}/text`,
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    endpoint: filesEndpoints.readFileTranscript,
    path: () => `/api/files/${key()}/transcript`,
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    endpoint: filesEndpoints.keepFileTranscript,
    path: () => `/api/files/${key()}/transcript`,
    body: () => ({ transcript: null }),
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    endpoint: peopleEndpoints.signOut,
    path: () => '/api/session',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
]
