import type { Row } from './roles'
import { MEMBERS, STAFF, WRITERS, dredge, key, pixel, seminar } from './roles'
import { doc } from '#server/testing/world'
import * as contributingEndpoints from '#shared/contributing/endpoints'
import * as filesEndpoints from '#shared/files/endpoints'
import * as markingEndpoints from '#shared/marking/endpoints'

/** What each role is answered at the routes of contributing. */
export const CONTRIBUTING_ROUTES: readonly Row[] = [
  { endpoint: markingEndpoints.readMarkingQueue, path: seminar('/marking'), expected: STAFF },
  { endpoint: contributingEndpoints.readActivity, path: dredge(), expected: MEMBERS },
  {
    endpoint: contributingEndpoints.readThread,
    path: dredge('/contributions'),
    expected: MEMBERS,
  },
  {
    endpoint: contributingEndpoints.postContribution,
    path: dredge('/contributions'),
    body: () => ({ key: key(), parentId: null, doc: doc('A post of one role.') }),
    expected: WRITERS,
  },
  {
    endpoint: contributingEndpoints.saveDraft,
    path: dredge('/draft'),
    body: () => ({ parentId: null, doc: doc('A draft.'), baseVersion: null }),
    expected: WRITERS,
  },
  {
    endpoint: contributingEndpoints.discardDraft,
    path: dredge('/draft'),
    body: () => ({ parentId: null }),
    expected: WRITERS,
  },
  {
    endpoint: contributingEndpoints.recordVisit,
    path: dredge('/visit'),
    body: () => ({ seq: 3 }),
    expected: MEMBERS,
  },
  {
    endpoint: contributingEndpoints.closeActivityToWords,
    path: dredge('/closed-to-words'),
    body: () => ({ closed: false }),
    expected: STAFF,
  },
  { endpoint: contributingEndpoints.readTexts, path: dredge(`/texts?ids=${key()}`), expected: MEMBERS },
  { endpoint: contributingEndpoints.findInThread, path: dredge('/find?q=silt'), expected: MEMBERS },
  {
    endpoint: filesEndpoints.addActivityFile,
    path: dredge('/files'),
    body: () => ({ id: key(), name: 'p.png', base64: pixel, transcript: null }),
    expected: WRITERS,
  },
  { endpoint: contributingEndpoints.followActivity, path: dredge('/live'), stream: true, expected: MEMBERS },
  { endpoint: contributingEndpoints.findLookAlikes, path: dredge('/look-alikes'), expected: STAFF },
  { endpoint: contributingEndpoints.exportThread, path: dredge('/export?as=md'), expected: MEMBERS },
  { endpoint: contributingEndpoints.readFeed, path: dredge('/feed'), expected: MEMBERS },
  { endpoint: contributingEndpoints.makeFeed, path: dredge('/feed'), expected: MEMBERS },
  { endpoint: contributingEndpoints.closeFeed, path: dredge('/feed'), expected: MEMBERS },
  {
    endpoint: contributingEndpoints.chooseNameInFeeds,
    path: seminar('/named-in-feeds'),
    body: () => ({ named: false }),
    expected: MEMBERS,
  },
]
