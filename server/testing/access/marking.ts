import type { Row } from './roles'
import { STAFF, STUDENTS, base64, breakwater, key, record, seminar } from './roles'
import { doc } from '#server/testing/world'

/** What each role is answered at the routes of marking. */
export const MARKING_ROUTES: readonly Row[] = [
  { route: 'activities/[activityId]/desk.get.ts', path: breakwater('/desk'), expected: STAFF },
  {
    route: 'activities/[activityId]/letter.get.ts',
    path: breakwater('/letter'),
    expected: [401, 404, 404, 404, 200, 404, 404],
  },
  {
    route: 'activities/[activityId]/return.post.ts',
    path: breakwater('/return'),
    body: () => ({ key: key(), enrolmentIds: [key()] }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/index.get.ts',
    path: record('liv'),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/mark.put.ts',
    path: record('idris', '/mark'),
    body: (_, role) => ({
      key: key(),
      baseVersion: role === 'ines' ? 1 : 0,
      steps: [],
      citations: [],
      letter: doc('Dear Idris,'),
      markerNote: '',
      lateWaived: false,
    }),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/hold.post.ts',
    path: record('kadri', '/hold'),
    body: () => ({ key: key(), baseVersion: 0 }),
    expected: [401, 404, 403, 403, 403, 422, 422],
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/reopen.post.ts',
    path: record('kadri', '/reopen'),
    body: () => ({ key: key(), baseVersion: 0 }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/return.post.ts',
    path: record('kadri', '/return'),
    body: () => ({ key: key(), baseVersion: 0 }),
    expected: [401, 404, 403, 403, 403, 422, 422],
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/preview.get.ts',
    path: record('kadri', '/preview'),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/history.get.ts',
    path: record('kadri', '/history'),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/take-back.post.ts',
    path: record('kadri', '/take-back'),
    body: () => ({ key: key(), baseVersion: 0 }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/second.put.ts',
    path: record('kadri', '/second'),
    body: () => ({ key: key(), steps: [], remark: '', done: false }),
    expected: [401, 404, 403, 403, 403, 404, 404],
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/agree.post.ts',
    path: record('kadri', '/agree'),
    body: () => ({ key: key(), baseVersion: 0 }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    route: 'activities/[activityId]/return-at.post.ts',
    path: breakwater('/return-at'),
    body: () => ({ key: key(), enrolmentIds: [key()], at: null }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    route: 'activities/[activityId]/second.post.ts',
    path: breakwater('/second'),
    body: () => ({ key: key(), enrolmentIds: [key()], markerId: null }),
    expected: [401, 404, 403, 403, 403, 404, 404],
  },
  {
    route: 'activities/[activityId]/shares.put.ts',
    path: breakwater('/shares'),
    body: () => ({ key: key(), enrolmentIds: [key()], markerIds: [] }),
    expected: STAFF,
  },
  { route: 'activities/[activityId]/rubric-move.get.ts', path: breakwater('/rubric-move'), expected: STAFF },
  {
    route: 'activities/[activityId]/rubric-move.post.ts',
    path: breakwater('/rubric-move'),
    body: () => ({ key: key(), enrolmentIds: [key()] }),
    expected: STAFF,
  },
  { route: 'seminars/[seminarId]/phrases/index.get.ts', path: seminar('/phrases'), expected: STAFF },
  {
    route: 'seminars/[seminarId]/phrases/index.put.ts',
    path: seminar('/phrases'),
    body: () => ({ id: key(), text: 'A phrase.', criterion: null }),
    expected: STAFF,
  },
  {
    route: 'seminars/[seminarId]/phrases/[phraseId]/used.post.ts',
    path: w => `/api/seminars/${w.seminar.id}/phrases/${key()}/used`,
    expected: [401, 404, 403, 403, 403, 404, 404],
  },
  {
    route: 'seminars/[seminarId]/phrases/[phraseId]/index.delete.ts',
    path: w => `/api/seminars/${w.seminar.id}/phrases/${key()}`,
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/points.put.ts',
    path: record('kadri', '/points'),
    body: () => ({ key: key(), was: 1, points: 100, reason: 'r' }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/excused.put.ts',
    path: record('kadri', '/excused'),
    body: () => ({ key: key(), excused: false, reason: '' }),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/distribution.get.ts',
    path: breakwater('/distribution'),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/letter/pdf.get.ts',
    path: breakwater('/letter/pdf'),
    expected: [401, 404, 404, 404, 200, 404, 404],
  },
  { route: 'seminars/[seminarId]/gradebook/index.get.ts', path: seminar('/gradebook'), expected: STAFF },
  {
    route: 'seminars/[seminarId]/gradebook/layout.put.ts',
    path: seminar('/gradebook/layout'),
    body: () => ({ order: [], hidden: [] }),
    expected: STAFF,
  },
  { route: 'seminars/[seminarId]/grades.get.ts', path: seminar('/grades'), expected: STUDENTS },
  { route: 'seminars/[seminarId]/results.get.ts', path: seminar('/results?form=csv'), expected: STAFF },
  {
    route: 'seminars/[seminarId]/marks/preview.post.ts',
    path: seminar('/marks/preview'),
    body: w => ({
      name: 'm.csv',
      activityId: w.breakwater.id,
      base64: base64('name,points\nLiv Brandt,1\n'),
    }),
    expected: STAFF,
  },
  {
    route: 'seminars/[seminarId]/marks/index.post.ts',
    path: seminar('/marks'),
    body: w => ({
      key: key(),
      name: 'm.csv',
      activityId: w.breakwater.id,
      reason: 'r',
      base64: base64('name,points\n'),
    }),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/letter/replies.get.ts',
    path: breakwater('/letter/replies'),
    expected: [401, 404, 404, 404, 200, 404, 404],
  },
  {
    route: 'activities/[activityId]/letter/replies.post.ts',
    path: breakwater('/letter/replies'),
    body: () => ({ key: key(), doc: doc('Thank you.') }),
    expected: [401, 404, 403, 404, 200, 404, 404],
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/replies.get.ts',
    path: record('liv', '/replies'),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/records/[enrolmentId]/replies.post.ts',
    path: record('liv', '/replies'),
    body: () => ({ key: key(), doc: doc('Gladly.') }),
    expected: STAFF,
  },
]
