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

/** What each role is answered at the routes of reviewing. */
export const REVIEWING_ROUTES: readonly Row[] = [
  {
    route: 'activities/[activityId]/hand-in/names.post.ts',
    path: reports('/hand-in/names'),
    body: () => ({ text: 'Nothing here.' }),
    expected: WRITERS,
  },
  {
    route: 'activities/[activityId]/hand-in/paper.put.ts',
    path: reports('/hand-in/paper'),
    body: () => ({ key: key(), enrolmentId: key(), handedIn: true }),
    expected: staffGet(422),
  },
  { route: 'activities/[activityId]/reviews/index.get.ts', path: reports('/reviews'), expected: MEMBERS },
  {
    route: 'activities/[activityId]/reviews/willing.put.ts',
    path: reports('/reviews/willing'),
    body: () => ({ more: 0 }),
    expected: WRITERS,
  },
  { route: 'reviews/[reviewId]/index.get.ts', path: reviewByLiv(), expected: OF_LIV(200) },
  {
    route: 'reviews/[reviewId]/index.put.ts',
    path: reviewByLiv(),
    body: () => ({ ...given, baseVersion: null }),
    expected: OF_LIV(409),
  },
  {
    route: 'reviews/[reviewId]/in.post.ts',
    path: reviewByLiv('/in'),
    body: () => ({ key: key() }),
    expected: OF_LIV(409),
  },
  {
    route: 'reviews/[reviewId]/back.post.ts',
    path: reviewByLiv('/back'),
    body: () => ({ key: key() }),
    expected: OF_LIV(409),
  },
  { route: 'reviews/[reviewId]/opened.put.ts', path: reviewByLiv('/opened'), expected: OF_LIV(200) },
  { route: 'reviews/[reviewId]/files/[place].get.ts', path: reviewByLiv('/files/0'), expected: OF_LIV(404) },
  {
    route: 'received/[receivedId]/helpful.put.ts',
    path: receivedByLiv('/helpful'),
    body: () => ({ helpful: 4 }),
    expected: OF_LIV(409),
  },
  {
    route: 'received/[receivedId]/answer.put.ts',
    path: receivedByLiv('/answer'),
    body: () => ({ key: key(), doc: doc('Thank you.') }),
    expected: OF_LIV(200),
  },
  { route: 'activities/[activityId]/peers/index.get.ts', path: reports('/peers'), expected: STAFF },
  {
    route: 'activities/[activityId]/peers/deal.post.ts',
    path: reports('/peers/deal'),
    body: () => ({ key: key(), seed: 1 }),
    expected: staffGet(409),
  },
  {
    route: 'activities/[activityId]/peers/pairs.put.ts',
    path: reports('/peers/pairs'),
    body: () => ({ key: key(), baseVersion: 0, add: [], remove: [] }),
    expected: staffGet(409),
  },
  {
    route: 'activities/[activityId]/peers/repair.post.ts',
    path: reports('/peers/repair'),
    body: () => ({}),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/peers/apart.put.ts',
    path: reports('/peers/apart'),
    body: () => ({ pairs: [] }),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/peers/release.put.ts',
    path: reports('/peers/release'),
    body: () => ({ released: false }),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/peers/remind.post.ts',
    path: reports('/peers/remind'),
    body: () => ({ key: key(), enrolmentIds: [key()], words: 'Please.' }),
    expected: STAFF,
  },
  {
    route: 'activities/[activityId]/peers/samples/index.post.ts',
    path: reports('/peers/samples'),
    body: () => ({ key: key(), id: key(), doc: doc('A sample.'), points: {}, why: {} }),
    expected: staffGet(422),
  },
  {
    route: 'activities/[activityId]/peers/samples/[entryId].delete.ts',
    path: w => `/api/activities/${w.reports.id}/peers/samples/${key()}`,
    expected: staffGet(404),
  },
  {
    route: 'activities/[activityId]/peers/take.post.ts',
    path: reports('/peers/take'),
    body: () => ({ key: key(), enrolmentIds: [key()] }),
    expected: staffGet(404),
  },
  {
    route: 'activities/[activityId]/peers/shares.post.ts',
    path: reports('/peers/shares'),
    body: () => ({ key: key(), factors: [{ enrolmentId: key(), factor: 100 }] }),
    expected: staffGet(409),
  },
  {
    route: 'activities/[activityId]/peers/allocations/[allocationId].put.ts',
    path: async w =>
      `/api/activities/${w.reports.id}/peers/allocations/${(await w.allocation(w.reports.id, { by: 'liv' })).id}`,
    body: () => ({ as: 'open' }),
    expected: STAFF,
  },
]
