import type { Row } from './roles'
import { STAFF, STUDENTS, base64, breakwater, key, record, seminar } from './roles'
import { doc } from '#server/testing/world'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'
import * as markingEndpoints from '#shared/marking/endpoints'

/** What each role is answered at the routes of marking. */
export const MARKING_ROUTES: readonly Row[] = [
  { endpoint: markingEndpoints.readDesk, path: breakwater('/desk'), expected: STAFF },
  {
    endpoint: markingEndpoints.readLetter,
    path: breakwater('/letter'),
    expected: [401, 404, 404, 404, 200, 404, 404],
  },
  {
    endpoint: markingEndpoints.returnMarks,
    path: breakwater('/return'),
    body: () => ({ key: key(), enrolmentIds: [key()] }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    endpoint: markingEndpoints.readRecord,
    path: record('liv'),
    expected: STAFF,
  },
  { endpoint: markingEndpoints.noteMarkerHere, path: record('liv', '/here'), expected: STAFF },
  {
    endpoint: markingEndpoints.saveMark,
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
    endpoint: markingEndpoints.holdMark,
    path: record('kadri', '/hold'),
    body: () => ({ key: key(), baseVersion: 0 }),
    expected: [401, 404, 403, 403, 403, 422, 422],
  },
  {
    endpoint: markingEndpoints.reopenMark,
    path: record('kadri', '/reopen'),
    body: () => ({ key: key(), baseVersion: 0 }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    endpoint: markingEndpoints.returnMark,
    path: record('kadri', '/return'),
    body: () => ({ key: key(), baseVersion: 0 }),
    expected: [401, 404, 403, 403, 403, 422, 422],
  },
  {
    endpoint: markingEndpoints.previewLetter,
    path: record('kadri', '/preview'),
    expected: STAFF,
  },
  {
    endpoint: markingEndpoints.readMarkHistory,
    path: record('kadri', '/history'),
    expected: STAFF,
  },
  {
    endpoint: markingEndpoints.takeMarkBack,
    path: record('kadri', '/take-back'),
    body: () => ({ key: key(), baseVersion: 0 }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    endpoint: markingEndpoints.saveSecondMark,
    path: record('kadri', '/second'),
    body: () => ({ key: key(), steps: [], remark: '', done: false }),
    expected: [401, 404, 403, 403, 403, 404, 404],
  },
  {
    endpoint: markingEndpoints.agreeSecondMark,
    path: record('kadri', '/agree'),
    body: () => ({ key: key(), baseVersion: 0 }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    endpoint: markingEndpoints.scheduleReturn,
    path: breakwater('/return-at'),
    body: () => ({ key: key(), enrolmentIds: [key()], at: null }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    endpoint: markingEndpoints.askSecondMarker,
    path: breakwater('/second'),
    body: () => ({ key: key(), enrolmentIds: [key()], markerId: null }),
    expected: [401, 404, 403, 403, 403, 404, 404],
  },
  {
    endpoint: markingEndpoints.divideMarking,
    path: breakwater('/shares'),
    body: () => ({ key: key(), enrolmentIds: [key()], markerIds: [] }),
    expected: STAFF,
  },
  { endpoint: markingEndpoints.readRubricMove, path: breakwater('/rubric-move'), expected: STAFF },
  {
    endpoint: markingEndpoints.moveMarksToRubric,
    path: breakwater('/rubric-move'),
    body: () => ({ key: key(), enrolmentIds: [key()] }),
    expected: STAFF,
  },
  { endpoint: markingEndpoints.readPhrases, path: seminar('/phrases'), expected: STAFF },
  {
    endpoint: markingEndpoints.savePhrase,
    path: seminar('/phrases'),
    body: () => ({ id: key(), text: 'A phrase.', criterion: null }),
    expected: STAFF,
  },
  {
    endpoint: markingEndpoints.recordPhraseUse,
    path: w => `/api/seminars/${w.seminar.id}/phrases/${key()}/used`,
    expected: [401, 404, 403, 403, 403, 404, 404],
  },
  {
    endpoint: markingEndpoints.removePhrase,
    path: w => `/api/seminars/${w.seminar.id}/phrases/${key()}`,
    expected: STAFF,
  },
  {
    endpoint: gradebookEndpoints.setPoints,
    path: record('kadri', '/points'),
    body: () => ({ key: key(), was: 1, points: 100, reason: 'r' }),
    expected: [401, 404, 403, 403, 403, 409, 409],
  },
  {
    endpoint: gradebookEndpoints.excuseStudent,
    path: record('kadri', '/excused'),
    body: () => ({ key: key(), excused: false, reason: '' }),
    expected: STAFF,
  },
  {
    endpoint: markingEndpoints.readDistribution,
    path: breakwater('/distribution'),
    expected: STAFF,
  },
  {
    endpoint: markingEndpoints.downloadLetter,
    path: breakwater('/letter/pdf'),
    expected: [401, 404, 404, 404, 200, 404, 404],
  },
  { endpoint: gradebookEndpoints.readGradebook, path: seminar('/gradebook'), expected: STAFF },
  {
    endpoint: gradebookEndpoints.arrangeGradebook,
    path: seminar('/gradebook/layout'),
    body: () => ({ order: [], hidden: [] }),
    expected: STAFF,
  },
  { endpoint: gradebookEndpoints.readOwnGrades, path: seminar('/grades'), expected: STUDENTS },
  { endpoint: gradebookEndpoints.downloadResults, path: seminar('/results?form=csv'), expected: STAFF },
  {
    endpoint: gradebookEndpoints.previewMarks,
    path: seminar('/marks/preview'),
    body: w => ({
      name: 'm.csv',
      activityId: w.breakwater.id,
      base64: base64('name,points\nLiv Brandt,1\n'),
    }),
    expected: STAFF,
  },
  {
    endpoint: gradebookEndpoints.importMarks,
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
    endpoint: markingEndpoints.readOwnLetterReplies,
    path: breakwater('/letter/replies'),
    expected: [401, 404, 404, 404, 200, 404, 404],
  },
  {
    endpoint: markingEndpoints.replyToOwnLetter,
    path: breakwater('/letter/replies'),
    body: () => ({ key: key(), doc: doc('Thank you.') }),
    expected: [401, 404, 403, 404, 200, 404, 404],
  },
  {
    endpoint: markingEndpoints.readLetterReplies,
    path: record('liv', '/replies'),
    expected: STAFF,
  },
  {
    endpoint: markingEndpoints.replyToLetter,
    path: record('liv', '/replies'),
    body: () => ({ key: key(), doc: doc('Gladly.') }),
    expected: STAFF,
  },
]
