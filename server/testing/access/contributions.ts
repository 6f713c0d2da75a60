import type { Row } from './roles'
import { STAFF, WRITERS, key, ofRasmus } from './roles'
import { doc } from '#server/testing/world'

/** What each role is answered at the routes of contributions. */
export const CONTRIBUTIONS_ROUTES: readonly Row[] = [
  {
    route: 'contributions/[contributionId]/index.patch.ts',
    path: ofRasmus(),
    body: () => ({ key: key(), doc: doc('Not mine to change.'), baseVersion: 1 }),
    expected: [401, 404, 403, 403, 403, 403, 403],
  },
  {
    route: 'contributions/[contributionId]/index.get.ts',
    path: ofRasmus(),
    expected: [401, 404, 403, 404, 404, 404, 404],
  },
  {
    route: 'contributions/[contributionId]/on-top.put.ts',
    path: ofRasmus('/on-top'),
    body: () => ({ onTop: false }),
    expected: STAFF,
  },
  {
    route: 'contributions/[contributionId]/opened.put.ts',
    path: ofRasmus('/opened'),
    body: () => ({ opened: true }),
    expected: [401, 404, 403, 404, 404, 409, 409],
  },
  {
    route: 'contributions/[contributionId]/approval.put.ts',
    path: ofRasmus('/approval'),
    body: () => ({ approved: true }),
    expected: STAFF,
  },
  { route: 'contributions/[contributionId]/revisions.get.ts', path: ofRasmus('/revisions'), expected: STAFF },
  {
    route: 'contributions/[contributionId]/mark.put.ts',
    path: ofRasmus('/mark'),
    body: () => ({ done: true, points: null }),
    expected: STAFF,
  },
  {
    route: 'contributions/[contributionId]/nod.put.ts',
    path: ofRasmus('/nod'),
    body: () => ({ nodded: true }),
    expected: WRITERS,
  },
  {
    route: 'contributions/[contributionId]/withdrawn.put.ts',
    path: ofRasmus('/withdrawn'),
    body: () => ({ withdrawn: true }),
    expected: [401, 404, 403, 403, 403, 200, 200],
  },
]
