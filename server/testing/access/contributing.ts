import type { Row } from './roles'
import { MEMBERS, STAFF, WRITERS, dredge, key, pixel, seminar } from './roles'
import { doc } from '#server/testing/world'

/** What each role is answered at the routes of contributing. */
export const CONTRIBUTING_ROUTES: readonly Row[] = [
  { route: 'seminars/[seminarId]/marking.get.ts', path: seminar('/marking'), expected: STAFF },
  { route: 'activities/[activityId]/index.get.ts', path: dredge(), expected: MEMBERS },
  {
    route: 'activities/[activityId]/contributions.get.ts',
    path: dredge('/contributions'),
    expected: MEMBERS,
  },
  {
    route: 'activities/[activityId]/contributions.post.ts',
    path: dredge('/contributions'),
    body: () => ({ key: key(), parentId: null, doc: doc('A post of one role.') }),
    expected: WRITERS,
  },
  {
    route: 'activities/[activityId]/draft.put.ts',
    path: dredge('/draft'),
    body: () => ({ parentId: null, doc: doc('A draft.'), baseVersion: null }),
    expected: WRITERS,
  },
  {
    route: 'activities/[activityId]/draft.delete.ts',
    path: dredge('/draft'),
    body: () => ({ parentId: null }),
    expected: WRITERS,
  },
  {
    route: 'activities/[activityId]/visit.put.ts',
    path: dredge('/visit'),
    body: () => ({ seq: 3 }),
    expected: MEMBERS,
  },
  { route: 'activities/[activityId]/texts.get.ts', path: dredge(`/texts?ids=${key()}`), expected: MEMBERS },
  { route: 'activities/[activityId]/find.get.ts', path: dredge('/find?q=silt'), expected: MEMBERS },
  {
    route: 'activities/[activityId]/files.post.ts',
    path: dredge('/files'),
    body: () => ({ id: key(), name: 'p.png', base64: pixel, transcript: null }),
    expected: WRITERS,
  },
  { route: 'activities/[activityId]/live.get.ts', path: dredge('/live'), stream: true, expected: MEMBERS },
  { route: 'activities/[activityId]/look-alikes.get.ts', path: dredge('/look-alikes'), expected: STAFF },
  { route: 'activities/[activityId]/export.get.ts', path: dredge('/export?as=md'), expected: MEMBERS },
  { route: 'activities/[activityId]/feed.get.ts', path: dredge('/feed'), expected: MEMBERS },
  { route: 'activities/[activityId]/feed.post.ts', path: dredge('/feed'), expected: MEMBERS },
  { route: 'activities/[activityId]/feed.delete.ts', path: dredge('/feed'), expected: MEMBERS },
  {
    route: 'seminars/[seminarId]/named-in-feeds.put.ts',
    path: seminar('/named-in-feeds'),
    body: () => ({ named: false }),
    expected: MEMBERS,
  },
]
