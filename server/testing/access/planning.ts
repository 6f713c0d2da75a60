import type { Row } from './roles'
import {
  MANAGERS,
  MEMBERS,
  STAFF,
  base64,
  dredge,
  key,
  managersGet,
  pixel,
  rubric,
  seminar,
  times,
} from './roles'

/** What each role is answered at the routes of planning. */
export const PLANNING_ROUTES: readonly Row[] = [
  { route: 'seminars/[seminarId]/library/index.get.ts', path: seminar('/library'), expected: STAFF },
  {
    route: 'seminars/[seminarId]/library/import.post.ts',
    path: seminar('/library/import'),
    body: () => ({ key: key(), name: 'o.csv', base64: base64('code,statement\nX 1,Reads.\n') }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/rubrics.post.ts',
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
            outcome: null,
            levels: [{ title: 'L', points: 100, pointsFrom: null, descriptor: '' }],
          },
        ],
      },
    }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/activities.post.ts',
    path: seminar('/activities'),
    body: () => ({ id: key(), kind: 'discussion', week: 7, unitId: null, templateId: null }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/plan/order.put.ts',
    path: seminar('/plan/order'),
    body: () => ({ key: key(), activityId: key(), unitId: null, beforeId: null }),
    expected: managersGet(422),
  },
  {
    route: 'seminars/[seminarId]/files.post.ts',
    path: seminar('/files'),
    body: () => ({ id: key(), name: 'p.png', base64: pixel, transcript: null }),
    expected: STAFF,
  },
  { route: 'seminars/[seminarId]/find.get.ts', path: seminar('/find?q=toll'), expected: MEMBERS },
  { route: 'seminars/[seminarId]/notices/index.get.ts', path: seminar('/notices'), expected: MEMBERS },
  { route: 'seminars/[seminarId]/notices/seen.put.ts', path: seminar('/notices/seen'), expected: MEMBERS },
  { route: 'activities/[activityId]/plan/index.get.ts', path: dredge('/plan'), expected: MANAGERS },
  {
    route: 'activities/[activityId]/plan/index.patch.ts',
    path: dredge('/plan'),
    body: () => ({ key: key(), baseVersion: 99, change: {}, tell: false }),
    expected: managersGet(409),
  },
  {
    route: 'activities/[activityId]/plan/effect.post.ts',
    path: dredge('/plan/effect'),
    body: () => ({ change: {} }),
    expected: MANAGERS,
  },
  {
    route: 'activities/[activityId]/publish.post.ts',
    path: dredge('/publish'),
    body: () => ({ key: key(), baseVersion: 99, opens: 'now', tell: false }),
    expected: managersGet(409),
  },
  {
    route: 'activities/[activityId]/unpublish.post.ts',
    path: dredge('/unpublish'),
    body: () => ({ key: key(), baseVersion: 99 }),
    expected: managersGet(409),
  },
  {
    route: 'activities/[activityId]/schedule.put.ts',
    path: dredge('/schedule'),
    body: () => ({ key: key(), baseVersion: 99, ...times }),
    expected: managersGet(409),
  },
  {
    route: 'activities/[activityId]/locked.put.ts',
    path: dredge('/locked'),
    body: () => ({ locked: false }),
    expected: MANAGERS,
  },
  {
    route: 'activities/[activityId]/copy.post.ts',
    path: dredge('/copy'),
    body: w => ({ id: key(), seminarId: w.seminar.id, week: null, asTemplate: false }),
    expected: MANAGERS,
  },
  { route: 'activities/[activityId]/index.delete.ts', path: dredge(), expected: managersGet(409) },
  {
    route: 'activities/[activityId]/extensions/[enrolmentId].put.ts',
    path: async w => `/api/activities/${w.dredge.id}/extensions/${(await w.enrolment('nico')).id}`,
    body: () => ({ dueAt: '2026-10-20T21:59:00Z', reason: 'ill' }),
    expected: MANAGERS,
  },
  {
    route: 'activities/[activityId]/extensions/[enrolmentId].delete.ts',
    path: async w => `/api/activities/${w.dredge.id}/extensions/${(await w.enrolment('nico')).id}`,
    expected: MANAGERS,
  },
  {
    route: 'rubrics/[rubricId]/index.put.ts',
    path: rubric(),
    body: () => ({
      key: key(),
      baseVersion: 99,
      rubric: {
        title: 'R',
        criteria: [
          {
            title: 'C',
            scope: 'own',
            weight: 1,
            suggestFrom: null,
            outcome: null,
            levels: [{ title: 'L', points: 100, pointsFrom: null, descriptor: '' }],
          },
        ],
      },
    }),
    expected: managersGet(409),
  },
  { route: 'rubrics/[rubricId]/export.get.ts', path: rubric('/export?form=json'), expected: STAFF },
  { route: 'rubrics/[rubricId]/index.delete.ts', path: rubric(), expected: MANAGERS },
  { route: 'rubrics/[rubricId]/back.put.ts', path: rubric('/back'), expected: MANAGERS },
  {
    route: 'files/[fileId]/index.get.ts',
    path: () => `/api/files/${key()}`,
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    route: 'files/[fileId]/text.get.ts',
    path: () => `/api/files/${key()}/text`,
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    route: 'files/[fileId]/transcript.get.ts',
    path: () => `/api/files/${key()}/transcript`,
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    route: 'session/index.delete.ts',
    path: () => '/api/session',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
]
