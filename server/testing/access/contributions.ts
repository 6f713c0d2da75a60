import type { Row } from './roles'
import { STAFF, WRITERS, key, ofRasmus } from './roles'
import { doc } from '#server/testing/world'
import * as contributingEndpoints from '#shared/contributing/endpoints'

/** What each role is answered at the routes of contributions. */
export const CONTRIBUTIONS_ROUTES: readonly Row[] = [
  {
    endpoint: contributingEndpoints.editContribution,
    path: ofRasmus(),
    body: () => ({ key: key(), doc: doc('Not mine to change.'), baseVersion: 1 }),
    expected: [401, 404, 403, 403, 403, 403, 403],
  },
  {
    endpoint: contributingEndpoints.readOwnText,
    path: ofRasmus(),
    expected: [401, 404, 403, 404, 404, 404, 404],
  },
  {
    endpoint: contributingEndpoints.keepOnTop,
    path: ofRasmus('/on-top'),
    body: () => ({ onTop: false }),
    expected: STAFF,
  },
  {
    endpoint: contributingEndpoints.closeThreadToWords,
    path: ofRasmus('/closed-to-words'),
    body: () => ({ closed: false }),
    expected: STAFF,
  },
  {
    endpoint: contributingEndpoints.openForReplies,
    path: ofRasmus('/opened'),
    body: () => ({ opened: true }),
    expected: [401, 404, 403, 404, 404, 409, 409],
  },
  {
    endpoint: contributingEndpoints.approveContribution,
    path: ofRasmus('/approval'),
    body: () => ({ approved: true }),
    expected: STAFF,
  },
  { endpoint: contributingEndpoints.readRevisions, path: ofRasmus('/revisions'), expected: STAFF },
  {
    endpoint: contributingEndpoints.markContribution,
    path: ofRasmus('/mark'),
    body: () => ({ done: true, points: null }),
    expected: STAFF,
  },
  {
    endpoint: contributingEndpoints.nodToContribution,
    path: ofRasmus('/nod'),
    body: () => ({ nodded: true }),
    expected: WRITERS,
  },
  {
    endpoint: contributingEndpoints.withdrawContribution,
    path: ofRasmus('/withdrawn'),
    body: () => ({ withdrawn: true }),
    expected: [401, 404, 403, 403, 403, 200, 200],
  },
]
