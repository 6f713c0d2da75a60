import type { Row } from './roles'
import { MANAGERS, MEMBERS, STAFF, base64, calm, key, managersGet, seminar, text } from './roles'

/** What each role is answered at the routes of reading. */
export const READING_ROUTES: readonly Row[] = [
  { route: 'activities/[activityId]/reading/index.get.ts', path: calm(), expected: MEMBERS },
  {
    route: 'activities/[activityId]/reading/parts.get.ts',
    path: calm('/parts?from=1&to=2'),
    expected: MEMBERS,
  },
  { route: 'activities/[activityId]/reading/find.get.ts', path: calm('/find?q=harbour'), expected: MEMBERS },
  {
    route: 'activities/[activityId]/reading/annotations.get.ts',
    path: calm('/annotations'),
    expected: MEMBERS,
  },
  {
    route: 'activities/[activityId]/reading/annotations.post.ts',
    path: calm('/annotations'),
    body: () => ({ key: key(), json: '[]', trial: true }),
    expected: [401, 404, 403, 422, 422, 422, 422],
  },
  {
    route: 'activities/[activityId]/reading/transcript.get.ts',
    path: calm('/transcript'),
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  { route: 'activities/[activityId]/reading/tools.get.ts', path: calm('/tools'), expected: MEMBERS },
  {
    route: 'activities/[activityId]/reading/tools.post.ts',
    path: calm('/tools'),
    body: () => ({}),
    expected: MEMBERS,
  },
  { route: 'activities/[activityId]/reading/tools.delete.ts', path: calm('/tools'), expected: MEMBERS },
  {
    route: 'contributions/[contributionId]/settled.put.ts',
    path: async w => `/api/contributions/${(await w.contribution('solongo', w.calm.id, 'note')).id}/settled`,
    body: () => ({ settled: true }),
    expected: [401, 404, 403, 409, 409, 409, 409],
  },
  { route: 'seminars/[seminarId]/texts/index.get.ts', path: seminar('/texts'), expected: STAFF },
  {
    route: 'seminars/[seminarId]/texts/index.post.ts',
    path: seminar('/texts'),
    body: () => ({ key: key(), id: key(), name: 'a.md', base64: base64('Words.') }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/texts/[textId]/index.patch.ts',
    path: text(),
    body: () => ({ credit: 'ours' }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/texts/[textId]/versions.post.ts',
    path: text('/versions'),
    body: () => ({ key: key(), name: 'a.bin', base64: base64('\u0000') }),
    expected: managersGet(422),
  },
  { route: 'seminars/[seminarId]/supplier/index.get.ts', path: seminar('/supplier'), expected: MANAGERS },
  {
    route: 'seminars/[seminarId]/supplier/index.post.ts',
    path: seminar('/supplier'),
    body: () => ({ key: key(), id: key(), bookId: 'none', from: 1, to: 1 }),
    expected: managersGet(422),
  },
]
