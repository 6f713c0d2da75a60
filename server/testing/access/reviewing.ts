import type { Row } from './roles'
import {
  MEMBERS,
  OF_LIV,
  STAFF,
  WRITERS,
  given,
  key,
  receivedByLiv,
  reports,
  reviewByLiv,
  staffGet,
} from './roles'
import { doc } from '#server/testing/world'
import * as peersEndpoints from '#shared/marking/peersEndpoints'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

/** What each role is answered at the routes of reviewing. */
export const REVIEWING_ROUTES: readonly Row[] = [
  {
    endpoint: reviewEndpoints.findNamesInWork,
    path: reports('/hand-in/names'),
    body: () => ({ text: 'Nothing here.' }),
    expected: WRITERS,
  },
  {
    endpoint: reviewEndpoints.handInPaper,
    path: reports('/hand-in/paper'),
    body: () => ({ key: key(), enrolmentId: key(), handedIn: true }),
    expected: staffGet(422),
  },
  { endpoint: reviewEndpoints.readOwnReviews, path: reports('/reviews'), expected: MEMBERS },
  {
    endpoint: reviewEndpoints.offerReviews,
    path: reports('/reviews/willing'),
    body: () => ({ more: 0 }),
    expected: WRITERS,
  },
  { endpoint: reviewEndpoints.readReview, path: reviewByLiv(), expected: OF_LIV(200) },
  {
    endpoint: reviewEndpoints.saveReview,
    path: reviewByLiv(),
    body: () => ({ ...given, baseVersion: null }),
    expected: OF_LIV(409),
  },
  {
    endpoint: reviewEndpoints.handInReview,
    path: reviewByLiv('/in'),
    body: () => ({ key: key() }),
    expected: OF_LIV(409),
  },
  {
    endpoint: reviewEndpoints.takeReviewBack,
    path: reviewByLiv('/back'),
    body: () => ({ key: key() }),
    expected: OF_LIV(409),
  },
  { endpoint: reviewEndpoints.recordReviewOpened, path: reviewByLiv('/opened'), expected: OF_LIV(200) },
  { endpoint: reviewEndpoints.readReviewedFile, path: reviewByLiv('/files/0'), expected: OF_LIV(404) },
  {
    endpoint: reviewEndpoints.rateReview,
    path: receivedByLiv('/helpful'),
    body: () => ({ helpful: 4 }),
    expected: OF_LIV(409),
  },
  {
    endpoint: reviewEndpoints.answerReview,
    path: receivedByLiv('/answer'),
    body: () => ({ key: key(), doc: doc('Thank you.') }),
    expected: OF_LIV(200),
  },
  { endpoint: peersEndpoints.readPeers, path: reports('/peers'), expected: STAFF },
  {
    endpoint: peersEndpoints.dealReviewers,
    path: reports('/peers/deal'),
    body: () => ({ key: key(), seed: 1 }),
    expected: staffGet(409),
  },
  { endpoint: peersEndpoints.undealReviewers, path: reports('/peers/deal'), expected: staffGet(409) },
  {
    endpoint: peersEndpoints.setReviewPairs,
    path: reports('/peers/pairs'),
    body: () => ({ key: key(), baseVersion: 0, add: [], remove: [] }),
    expected: staffGet(409),
  },
  {
    endpoint: peersEndpoints.repairReviews,
    path: reports('/peers/repair'),
    body: () => ({}),
    expected: STAFF,
  },
  {
    endpoint: peersEndpoints.keepReviewersApart,
    path: reports('/peers/apart'),
    body: () => ({ pairs: [] }),
    expected: STAFF,
  },
  {
    endpoint: peersEndpoints.releaseReviews,
    path: reports('/peers/release'),
    body: () => ({ released: false }),
    expected: STAFF,
  },
  {
    endpoint: peersEndpoints.remindReviewers,
    path: reports('/peers/remind'),
    body: () => ({ key: key(), enrolmentIds: [key()], words: 'Please.' }),
    expected: STAFF,
  },
  {
    endpoint: peersEndpoints.addSample,
    path: reports('/peers/samples'),
    body: () => ({ key: key(), id: key(), doc: doc('A sample.'), points: {}, why: {} }),
    expected: staffGet(422),
  },
  {
    endpoint: peersEndpoints.removeSample,
    path: w => `/api/activities/${w.reports.id}/peers/samples/${key()}`,
    expected: staffGet(404),
  },
  {
    endpoint: peersEndpoints.proposePeerMarks,
    path: reports('/peers/take'),
    body: () => ({ key: key(), enrolmentIds: [key()] }),
    expected: staffGet(404),
  },
  {
    endpoint: peersEndpoints.undoPeerMarks,
    path: reports('/peers/take'),
    body: () => ({ key: key(), enrolmentIds: [key()] }),
    expected: staffGet(404),
  },
  {
    endpoint: peersEndpoints.proposeShares,
    path: reports('/peers/shares'),
    body: () => ({ key: key(), factors: [{ enrolmentId: key(), factor: 100 }] }),
    expected: staffGet(409),
  },
  {
    endpoint: peersEndpoints.judgeReview,
    path: async w =>
      `/api/activities/${w.reports.id}/peers/allocations/${(await w.allocation(w.reports.id, { by: 'liv' })).id}`,
    body: () => ({ as: 'open' }),
    expected: STAFF,
  },
]
