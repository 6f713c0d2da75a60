import type { Row } from './roles'
import {
  MEMBERS,
  OF_GROUP,
  STAFF,
  WRITERS_OF_GROUP,
  chain,
  chainComment,
  city,
  key,
  seminar,
  terms,
} from './roles'
import { doc } from '#server/testing/world'

/** What each role is answered at the routes of wiki. */
export const WIKI_ROUTES: readonly Row[] = [
  { route: 'activities/[activityId]/wiki/index.get.ts', path: city('/wiki'), expected: MEMBERS },
  {
    route: 'activities/[activityId]/wiki/pages.post.ts',
    path: city('/wiki/pages'),
    body: () => ({ id: key(), groupId: key(), title: 'Elsewhere', parentId: null }),
    expected: [401, 404, 403, 404, 404, 404, 404],
  },
  {
    route: 'activities/[activityId]/wiki/shares.get.ts',
    path: async w =>
      `/api/activities/${w.city.id}/wiki/shares?group=${(await w.page(w.city.id, 'Qasr el-Mina', 'The chain')).groupId}`,
    expected: OF_GROUP(),
  },
  {
    route: 'activities/[activityId]/wiki/export.get.ts',
    path: async w =>
      `/api/activities/${w.city.id}/wiki/export?as=markdown&group=${(await w.page(w.city.id, 'Qasr el-Mina', 'The chain')).groupId}`,
    expected: OF_GROUP(),
  },
  {
    route: 'activities/[activityId]/wiki/import.post.ts',
    path: city('/wiki/import'),
    body: () => ({ key: key(), groupId: key(), files: [{ name: 'a.md', text: '# A' }] }),
    expected: [401, 404, 403, 404, 404, 404, 404],
  },
  { route: 'pages/[pageId]/index.get.ts', path: chain(), expected: OF_GROUP() },
  { route: 'pages/[pageId]/index.patch.ts', path: chain(), body: () => ({}), expected: WRITERS_OF_GROUP() },
  {
    route: 'pages/[pageId]/claimed.put.ts',
    path: async w => `/api/pages/${(await w.page(w.city.id, 'Qasr el-Mina', 'The interpreter')).id}/claimed`,
    body: () => ({ claimed: true }),
    expected: [401, 404, 403, 404, 409, 422, 422],
  },
  {
    route: 'pages/[pageId]/removed.put.ts',
    path: chain('/removed'),
    body: () => ({ removed: false }),
    expected: WRITERS_OF_GROUP(422),
  },
  {
    route: 'pages/[pageId]/writing.put.ts',
    path: chain('/writing'),
    body: () => ({ writing: false }),
    expected: WRITERS_OF_GROUP(),
  },
  {
    route: 'pages/[pageId]/draft.put.ts',
    path: chain('/draft'),
    body: () => ({ doc: doc('A draft.'), base: 5, baseVersion: null }),
    expected: WRITERS_OF_GROUP(),
  },
  { route: 'pages/[pageId]/draft.delete.ts', path: chain('/draft'), expected: WRITERS_OF_GROUP() },
  {
    route: 'pages/[pageId]/versions/index.post.ts',
    path: chain('/versions'),
    body: () => ({ key: key(), doc: doc('A version.'), base: 99 }),
    expected: WRITERS_OF_GROUP(422),
  },
  {
    route: 'pages/[pageId]/versions/[number]/index.get.ts',
    path: chain('/versions/1'),
    expected: OF_GROUP(),
  },
  {
    route: 'pages/[pageId]/versions/[number]/restore.post.ts',
    path: chain('/versions/1/restore'),
    body: () => ({ key: key(), base: 99 }),
    expected: WRITERS_OF_GROUP(409),
  },
  {
    route: 'pages/[pageId]/comments.post.ts',
    path: chain('/comments'),
    body: () => ({ key: key(), doc: doc(''), passage: null, parentId: null }),
    expected: WRITERS_OF_GROUP(422),
  },
  {
    route: 'contributions/[contributionId]/resolved.put.ts',
    path: chainComment('/resolved'),
    body: () => ({ number: null }),
    expected: WRITERS_OF_GROUP(),
  },
  {
    route: 'activities/[activityId]/lexicon/export.get.ts',
    path: terms('/lexicon/export?as=csv'),
    expected: MEMBERS,
  },
  {
    route: 'activities/[activityId]/lexicon/import.post.ts',
    path: terms('/lexicon/import'),
    body: () => ({ key: key(), text: 'term,definition\na,b', trial: true }),
    expected: STAFF,
  },
  { route: 'seminars/[seminarId]/terms/index.get.ts', path: seminar('/terms'), expected: MEMBERS },
  {
    route: 'seminars/[seminarId]/terms/[termId].get.ts',
    path: async w =>
      `/api/seminars/${w.seminar.id}/terms/${(await w.contribution('solongo', w.terms.id, 'term')).id}`,
    expected: MEMBERS,
  },
]
