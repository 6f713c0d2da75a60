import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import * as t from '#server/database/schema'
import { Client } from '#server/testing/server'
import { doc, testWorld, words, type World } from '#server/testing/world'

const ROLES = ['nobody', 'outsider', 'observer', 'paz', 'liv', 'henrik', 'ines'] as const // paz and liv are students
type Role = (typeof ROLES)[number]
type Expected = readonly [
  nobody: number,
  outsider: number,
  observer: number,
  paz: number,
  liv: number,
  henrik: number,
  ines: number,
]

interface Row {
  readonly route: string
  readonly path: (w: World) => Promise<string> | string
  readonly body?: (w: World, role: Role) => unknown
  readonly stream?: true
  readonly expected: Expected
}

const key = () => v7()
const seminar =
  (rest = '') =>
  (w: World) =>
    `/api/seminars/${w.seminar.id}${rest}`
const dredge =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.dredge.id}${rest}`
const breakwater =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.breakwater.id}${rest}`
const record =
  (student: string, rest = '') =>
  async (w: World) =>
    `/api/activities/${w.breakwater.id}/records/${(await w.enrolment(student)).id}${rest}`
const reports =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.reports.id}${rest}`
const reviewByLiv =
  (rest = '') =>
  async (w: World) =>
    `/api/reviews/${(await w.allocation(w.reports.id, { by: 'liv' })).id}${rest}`
const receivedByLiv =
  (rest = '') =>
  async (w: World) =>
    `/api/received/${(await w.allocation(w.teammates.id, { of: 'liv' })).receivedId}${rest}`
const ofRasmus =
  (rest = '') =>
  async (w: World) =>
    `/api/contributions/${(await w.contribution('rasmus', w.dredge.id)).id}${rest}`

const MEMBERS: Expected = [401, 404, 200, 200, 200, 200, 200]
const STUDENTS: Expected = [401, 404, 404, 200, 200, 404, 404]
const WRITERS: Expected = [401, 404, 403, 200, 200, 200, 200]
const STAFF: Expected = [401, 404, 403, 403, 403, 200, 200]

const MANAGERS: Expected = [401, 404, 403, 403, 403, 403, 200]
const managersGet = (status: number): Expected => [401, 404, 403, 403, 403, 403, status]
const rubric =
  (rest = '') =>
  async (w: World) =>
    `/api/rubrics/${(await w.rubric('Teammate share')).id}${rest}`
const base64 = (text: string) => Buffer.from(text).toString('base64')
const rules = { by: 'number', count: 3, together: [], apart: [], mixSections: true, seed: 1 }
const term = { firstDay: '2027-02-01', weeks: 12, breaks: [] }
const times = {
  opensAt: '2026-10-12T06:00:00Z',
  phases: [{ name: 'write', startsAt: '2026-10-12T06:00:00Z', endsAt: '2026-10-15T21:59:00Z' }],
}
const pixel =
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
const settings = {
  ...term,
  code: 'HC',
  title: 'Harbour',
  college: '',
  timeZone: 'Europe/Amsterdam',
  usualDueTime: '23:59',
  usualDueWeekday: 7,
  units: [],
  sections: [],
  categories: [],
  scales: [],
  pace: { readingWordsPerMinute: 220, writingWordsPerMinute: 12, markingMinutesPerStudent: 3 },
  studentHoursLimit: 6,
  markingHoursLimit: 8,
  presenceGapDays: 14,
}

const OF_LIV = (status: number): Expected => [401, 404, 403, 404, status, 404, 404]
const staffGet = (status: number): Expected => [401, 404, 403, 403, 403, status, status]
const given = { points: {}, remarks: {}, answers: {}, passages: [], private: '' }

const city =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.city.id}${rest}`
const terms =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.terms.id}${rest}`
/** A page of Liv's group: no other group's. */
const chain =
  (rest = '') =>
  async (w: World) =>
    `/api/pages/${(await w.page(w.city.id, 'Qasr el-Mina', 'The chain')).id}${rest}`
const chainComment =
  (rest = '') =>
  async (w: World) =>
    `/api/contributions/${(await w.contribution('saoirse', w.city.id, 'comment')).id}${rest}`
const OF_GROUP = (status = 200): Expected => [401, 404, 404, 404, status, status, status]
const WRITERS_OF_GROUP = (status = 200): Expected => [401, 404, 403, 404, status, status, status]

const calm =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.calm.id}/reading${rest}`
const text =
  (rest = '') =>
  async (w: World) => {
    const [row] = await w.db.select().from(t.texts)
    return `/api/seminars/${w.seminar.id}/texts/${row!.id}${rest}`
  }

const CORRESPONDENTS: Expected = [401, 404, 404, 200, 200, 200, 200]
const STAFF_OR_NOTHING: Expected = [401, 404, 404, 404, 404, 200, 200]
const conversation =
  (rest = '') =>
  async (w: World) => {
    const [row] = await w.db
      .select()
      .from(t.messageThreads)
      .where(eq(t.messageThreads.studentId, (await w.enrolment('oona')).id))
    return `/api/seminars/${w.seminar.id}/messages/threads/${row!.id}${rest}`
  }
const ruleOf =
  (rest = '') =>
  async (w: World) => {
    const [row] = await w.db.select().from(t.messageRules)
    return `/api/seminars/${w.seminar.id}/messages/rules/${row!.id}${rest}`
  }

/** Every route against every role. A student is never told more than that something is not theirs. */
const TABLE: readonly Row[] = [
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
  {
    route: 'session/index.get.ts',
    path: () => '/api/session',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
  {
    route: 'session/index.post.ts',
    path: () => '/api/session',
    body: () => ({ email: 'liv@northmere.example', password: 'wrong' }),
    expected: [401, 401, 401, 401, 401, 401, 401],
  },
  {
    route: 'demo/people.get.ts',
    path: () => '/api/demo/people',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
  {
    route: 'demo/session.post.ts',
    path: () => '/api/demo/session',
    body: () => ({ personId: key() }),
    expected: [404, 404, 404, 404, 404, 404, 404],
  },
  { route: 'seminars/[seminarId]/index.get.ts', path: seminar(), expected: MEMBERS },
  { route: 'seminars/[seminarId]/plan.get.ts', path: seminar('/plan'), expected: MEMBERS },
  { route: 'seminars/[seminarId]/week.get.ts', path: seminar('/week'), expected: STUDENTS },
  { route: 'seminars/[seminarId]/letters.get.ts', path: seminar('/letters'), expected: MEMBERS },
  { route: 'seminars/[seminarId]/voices.get.ts', path: seminar('/voices'), expected: STAFF },
  { route: 'seminars/[seminarId]/voices/table.get.ts', path: seminar('/voices/table'), expected: STAFF },
  {
    route: 'seminars/[seminarId]/voices/[enrolmentId].get.ts',
    path: async w => `/api/seminars/${w.seminar.id}/voices/${(await w.enrolment('liv')).id}`,
    expected: STAFF,
  },
  { route: 'seminars/[seminarId]/presence/index.get.ts', path: seminar('/presence'), expected: STAFF },
  {
    route: 'seminars/[seminarId]/presence/acts.get.ts',
    path: async w => `/api/seminars/${w.seminar.id}/presence/acts?student=${(await w.enrolment('liv')).id}`,
    expected: STAFF,
  },
  {
    route: 'seminars/[seminarId]/presence/log.get.ts',
    path: seminar('/presence/log?as=csv'),
    expected: STAFF,
  },
  { route: 'seminars/[seminarId]/outcomes/index.get.ts', path: seminar('/outcomes'), expected: MANAGERS },
  {
    route: 'seminars/[seminarId]/outcomes/table.get.ts',
    path: seminar('/outcomes/table?by=student'),
    expected: MANAGERS,
  },
  { route: 'seminars/[seminarId]/messages/draft.get.ts', path: seminar('/messages/draft'), expected: STAFF },
  {
    route: 'seminars/[seminarId]/messages/index.post.ts',
    path: seminar('/messages'),
    body: () => ({
      key: key(),
      activityId: null,
      subject: 'A',
      text: 'B',
      people: [{ id: key(), text: null }],
    }),
    expected: staffGet(422),
  },
  {
    route: 'seminars/[seminarId]/messages/index.get.ts',
    path: seminar('/messages'),
    expected: CORRESPONDENTS,
  },
  {
    route: 'seminars/[seminarId]/messages/threads/[threadId]/index.get.ts',
    path: conversation(),
    expected: STAFF_OR_NOTHING,
  },
  {
    route: 'seminars/[seminarId]/messages/threads/[threadId]/replies.post.ts',
    path: conversation('/replies'),
    body: () => ({ key: key(), text: 'A line.' }),
    expected: STAFF_OR_NOTHING,
  },
  {
    route: 'seminars/[seminarId]/messages/sendings/[sendingId].delete.ts',
    path: w => `/api/seminars/${w.seminar.id}/messages/sendings/${key()}`,
    expected: staffGet(404),
  },
  {
    route: 'seminars/[seminarId]/messages/rules/index.get.ts',
    path: seminar('/messages/rules'),
    expected: STAFF,
  },
  {
    route: 'seminars/[seminarId]/messages/rules/index.post.ts',
    path: seminar('/messages/rules'),
    body: () => ({ activityId: null, daysBefore: 1, atTime: '12:00', subject: 'A', text: 'B' }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/messages/rules/[ruleId]/index.put.ts',
    path: ruleOf(),
    body: () => ({ activityId: null, daysBefore: 1, atTime: '12:00', subject: 'A', text: 'B' }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/messages/rules/[ruleId]/on.put.ts',
    path: ruleOf('/on'),
    body: () => ({ on: true, version: 99 }),
    expected: managersGet(409),
  },
  {
    route: 'seminars/[seminarId]/messages/rules/[ruleId]/index.delete.ts',
    path: w => `/api/seminars/${w.seminar.id}/messages/rules/${key()}`,
    expected: managersGet(404),
  },
  {
    route: 'activities/[activityId]/closing/index.get.ts',
    path: breakwater('/closing'),
    expected: [401, 404, 404, 200, 200, 200, 200],
  },
  {
    route: 'activities/[activityId]/closing/index.put.ts',
    path: breakwater('/closing'),
    body: () => ({
      questions: [{ id: key(), kind: 'open', text: 'A?' }],
      named: true,
      opensAt: '2026-10-12T06:00:00Z',
      closesAt: '2026-10-15T21:59:00Z',
      baseVersion: 99,
    }),
    expected: managersGet(409),
  },
  {
    route: 'activities/[activityId]/closing/index.delete.ts',
    path: dredge('/closing'),
    expected: managersGet(404),
  },
  {
    route: 'activities/[activityId]/closing/answers.put.ts',
    path: breakwater('/closing/answers'),
    body: () => ({ answers: {} }),
    expected: [401, 404, 403, 409, 409, 403, 403],
  },
  {
    route: 'activities/[activityId]/closing/export.get.ts',
    path: breakwater('/closing/export'),
    expected: STAFF,
  },
  { route: 'seminars/[seminarId]/archive.get.ts', path: seminar('/archive'), expected: MANAGERS },
  {
    route: 'archives/index.post.ts',
    path: () => '/api/archives',
    body: () => ({}),
    expected: [401, 403, 403, 403, 403, 403, 422],
  },
  { route: 'seminars/[seminarId]/own-data.get.ts', path: seminar('/own-data'), expected: STUDENTS },
  {
    route: 'seminars/[seminarId]/people/[enrolmentId]/data.get.ts',
    path: async w => `/api/seminars/${w.seminar.id}/people/${(await w.enrolment('liv')).id}/data`,
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/people/[enrolmentId]/erase.post.ts',
    path: async w => `/api/seminars/${w.seminar.id}/people/${(await w.enrolment('liv')).id}/erase`,
    body: () => ({ name: 'Somebody Else' }),
    expected: managersGet(422),
  },
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
  {
    route: 'installation.get.ts',
    path: () => '/api/installation',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
  {
    route: 'account/index.get.ts',
    path: () => '/api/account',
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    route: 'account/index.post.ts',
    path: () => '/api/account',
    body: () => ({ givenName: 'A', familyName: 'B', email: 'a@northmere.example', password: 'long enough' }),
    expected: [409, 409, 409, 409, 409, 409, 409],
  },
  {
    route: 'account/mail.put.ts',
    path: () => '/api/account/mail',
    body: () => ({ mailChoice: 'daily' }),
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    route: 'account/calendar.post.ts',
    path: () => '/api/account/calendar',
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    route: 'account/calendar.delete.ts',
    path: () => '/api/account/calendar',
    expected: [401, 200, 200, 200, 200, 200, 200],
  },
  {
    route: 'password/index.post.ts',
    path: () => '/api/password',
    body: () => ({ email: 'nobody@northmere.example' }),
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
  {
    route: 'password/[secret].get.ts',
    path: () => '/api/password/not-a-link-that-was-ever-sent',
    expected: [404, 404, 404, 404, 404, 404, 404],
  },
  {
    route: 'password/[secret].post.ts',
    path: () => '/api/password/not-a-link-that-was-ever-sent',
    body: () => ({ password: 'long enough' }),
    expected: [404, 404, 404, 404, 404, 404, 404],
  },
  {
    route: 'join/[code].get.ts',
    path: () => '/api/join/KELP-4QX',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
  {
    route: 'join/[code].post.ts',
    path: () => '/api/join/ZZZZ-999',
    body: () => ({ account: null }),
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  { route: 'mailroom.get.ts', path: () => '/api/mailroom', expected: [401, 403, 403, 403, 403, 403, 200] },
  {
    route: 'seminars/index.post.ts',
    path: () => '/api/seminars',
    body: () => ({ ...term, id: key(), code: 'N 1', title: 'New', college: '', timeZone: 'Europe/Oslo' }),
    expected: [401, 200, 403, 403, 403, 403, 200],
  },
  { route: 'seminars/[seminarId]/settings.get.ts', path: seminar('/settings'), expected: MANAGERS },
  {
    route: 'seminars/[seminarId]/settings.put.ts',
    path: seminar('/settings'),
    body: () => ({ key: key(), baseVersion: 99, settings }),
    expected: managersGet(409),
  },
  {
    route: 'seminars/[seminarId]/archived.put.ts',
    path: seminar('/archived'),
    body: () => ({ archived: false }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/copy.post.ts',
    path: seminar('/copy'),
    body: () => ({ ...term, id: key(), code: 'N 2', title: 'Again' }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/students-eye.put.ts',
    path: seminar('/students-eye'),
    body: () => ({ on: false }),
    expected: STAFF,
  },
  { route: 'seminars/[seminarId]/people/index.get.ts', path: seminar('/people'), expected: STAFF },
  {
    route: 'seminars/[seminarId]/people/index.post.ts',
    path: seminar('/people'),
    body: (_, role) => ({
      key: key(),
      givenName: 'New',
      familyName: 'Person',
      email: `new.${role}@northmere.example`,
      role: 'student',
      sectionId: null,
      invite: false,
    }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/people/invite.post.ts',
    path: seminar('/people/invite'),
    body: () => ({ key: key(), enrolmentIds: [key()] }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/people/[enrolmentId].patch.ts',
    path: async w => `/api/seminars/${w.seminar.id}/people/${(await w.enrolment('nico')).id}`,
    body: () => ({ state: 'active' }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/roster/preview.post.ts',
    path: seminar('/roster/preview'),
    body: () => ({ name: 'r.csv', base64: base64('name,email\nNew Name,nn@northmere.example\n') }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/roster/index.post.ts',
    path: seminar('/roster'),
    body: () => ({
      key: key(),
      name: 'r.csv',
      base64: base64('name,email\nNew Name,nn@northmere.example\n'),
      withdrawMissing: false,
      invite: false,
    }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/codes/index.post.ts',
    path: seminar('/codes'),
    body: () => ({ key: key(), role: 'student', sectionId: null, days: 3, most: 5 }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/codes/[codeId].delete.ts',
    path: w => `/api/seminars/${w.seminar.id}/codes/${key()}`,
    expected: managersGet(404),
  },
  { route: 'seminars/[seminarId]/groups/index.get.ts', path: seminar('/groups'), expected: MEMBERS },
  {
    route: 'seminars/[seminarId]/groups/index.post.ts',
    path: seminar('/groups'),
    body: () => ({ key: key(), title: 'Three', rules, topics: [], selfJoin: false, most: null }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/groups/[planId]/index.put.ts',
    path: w => `/api/seminars/${w.seminar.id}/groups/${key()}`,
    body: () => ({
      key: key(),
      baseVersion: 1,
      title: 'T',
      selfJoin: false,
      most: null,
      groups: [{ id: key(), title: 'G', memberIds: [] }],
    }),
    expected: managersGet(404),
  },
  {
    route: 'seminars/[seminarId]/groups/[planId]/index.delete.ts',
    path: w => `/api/seminars/${w.seminar.id}/groups/${key()}`,
    expected: managersGet(404),
  },
  {
    route: 'seminars/[seminarId]/groups/[planId]/deal.post.ts',
    path: w => `/api/seminars/${w.seminar.id}/groups/${key()}/deal`,
    body: () => ({ key: key(), baseVersion: 1, rules }),
    expected: managersGet(404),
  },
  {
    route: 'seminars/[seminarId]/groups/[planId]/mine.put.ts',
    path: w => `/api/seminars/${w.seminar.id}/groups/${key()}/mine`,
    body: () => ({ groupId: null }),
    expected: [401, 404, 403, 404, 404, 403, 403],
  },
  { route: 'seminars/[seminarId]/library/index.get.ts', path: seminar('/library'), expected: STAFF },
  {
    route: 'seminars/[seminarId]/library/import.post.ts',
    path: seminar('/library/import'),
    body: () => ({ key: key(), name: 'o.csv', base64: base64('code,statement\nX 1,Reads.\n') }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/rubrics.post.ts',
    path: seminar('/rubrics'),
    body: () => ({
      key: key(),
      rubric: {
        title: 'R',
        criteria: [
          {
            title: 'C',
            scope: 'own',
            weight: 1,
            suggestFrom: null,
            outcome: null,
            levels: [{ title: 'L', points: 100, pointsFrom: null, descriptor: '' }],
          },
        ],
      },
    }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/activities.post.ts',
    path: seminar('/activities'),
    body: () => ({ id: key(), kind: 'discussion', week: 7, unitId: null, templateId: null }),
    expected: MANAGERS,
  },
  {
    route: 'seminars/[seminarId]/plan/order.put.ts',
    path: seminar('/plan/order'),
    body: () => ({ key: key(), activityId: key(), unitId: null, beforeId: null }),
    expected: managersGet(422),
  },
  {
    route: 'seminars/[seminarId]/files.post.ts',
    path: seminar('/files'),
    body: () => ({ id: key(), name: 'p.png', base64: pixel, transcript: null }),
    expected: STAFF,
  },
  { route: 'seminars/[seminarId]/find.get.ts', path: seminar('/find?q=toll'), expected: MEMBERS },
  { route: 'seminars/[seminarId]/notices/index.get.ts', path: seminar('/notices'), expected: MEMBERS },
  { route: 'seminars/[seminarId]/notices/seen.put.ts', path: seminar('/notices/seen'), expected: MEMBERS },
  { route: 'activities/[activityId]/plan/index.get.ts', path: dredge('/plan'), expected: MANAGERS },
  {
    route: 'activities/[activityId]/plan/index.patch.ts',
    path: dredge('/plan'),
    body: () => ({ key: key(), baseVersion: 99, change: {}, tell: false }),
    expected: managersGet(409),
  },
  {
    route: 'activities/[activityId]/plan/effect.post.ts',
    path: dredge('/plan/effect'),
    body: () => ({ change: {} }),
    expected: MANAGERS,
  },
  {
    route: 'activities/[activityId]/publish.post.ts',
    path: dredge('/publish'),
    body: () => ({ key: key(), baseVersion: 99, opens: 'now', tell: false }),
    expected: managersGet(409),
  },
  {
    route: 'activities/[activityId]/unpublish.post.ts',
    path: dredge('/unpublish'),
    body: () => ({ key: key(), baseVersion: 99 }),
    expected: managersGet(409),
  },
  {
    route: 'activities/[activityId]/schedule.put.ts',
    path: dredge('/schedule'),
    body: () => ({ key: key(), baseVersion: 99, ...times }),
    expected: managersGet(409),
  },
  {
    route: 'activities/[activityId]/locked.put.ts',
    path: dredge('/locked'),
    body: () => ({ locked: false }),
    expected: MANAGERS,
  },
  {
    route: 'activities/[activityId]/copy.post.ts',
    path: dredge('/copy'),
    body: w => ({ id: key(), seminarId: w.seminar.id, week: null, asTemplate: false }),
    expected: MANAGERS,
  },
  { route: 'activities/[activityId]/index.delete.ts', path: dredge(), expected: managersGet(409) },
  {
    route: 'activities/[activityId]/extensions/[enrolmentId].put.ts',
    path: async w => `/api/activities/${w.dredge.id}/extensions/${(await w.enrolment('nico')).id}`,
    body: () => ({ dueAt: '2026-10-20T21:59:00Z', reason: 'ill' }),
    expected: MANAGERS,
  },
  {
    route: 'activities/[activityId]/extensions/[enrolmentId].delete.ts',
    path: async w => `/api/activities/${w.dredge.id}/extensions/${(await w.enrolment('nico')).id}`,
    expected: MANAGERS,
  },
  {
    route: 'rubrics/[rubricId]/index.put.ts',
    path: rubric(),
    body: () => ({
      key: key(),
      baseVersion: 99,
      rubric: {
        title: 'R',
        criteria: [
          {
            title: 'C',
            scope: 'own',
            weight: 1,
            suggestFrom: null,
            outcome: null,
            levels: [{ title: 'L', points: 100, pointsFrom: null, descriptor: '' }],
          },
        ],
      },
    }),
    expected: managersGet(409),
  },
  { route: 'rubrics/[rubricId]/export.get.ts', path: rubric('/export?form=json'), expected: STAFF },
  { route: 'rubrics/[rubricId]/index.delete.ts', path: rubric(), expected: MANAGERS },
  { route: 'rubrics/[rubricId]/back.put.ts', path: rubric('/back'), expected: MANAGERS },
  {
    route: 'files/[fileId]/index.get.ts',
    path: () => `/api/files/${key()}`,
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    route: 'files/[fileId]/text.get.ts',
    path: () => `/api/files/${key()}/text`,
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    route: 'files/[fileId]/transcript.get.ts',
    path: () => `/api/files/${key()}/transcript`,
    expected: [401, 404, 404, 404, 404, 404, 404],
  },
  {
    route: 'session/index.delete.ts',
    path: () => '/api/session',
    expected: [200, 200, 200, 200, 200, 200, 200],
  },
]

describe('every route against every role', () => {
  let world: World
  const clients = new Map<Role, Client>()
  beforeAll(async () => {
    world = await testWorld()
    for (const role of ROLES) clients.set(role, role === 'nobody' ? world.nobody : await world.as(role))
  })
  afterAll(() => world.close())

  it('has every route of the server in the table', () => {
    const folder = join(import.meta.dirname)
    const files = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter(f =>
      /\.(get|post|put|patch|delete)\.ts$/.test(f),
    )
    expect(files.sort()).toEqual(TABLE.map(r => r.route).sort())
  })

  it('answers each as the table says', async () => {
    const wrong: string[] = []
    for (const row of TABLE) {
      const method = /\.(\w+)\.ts$/.exec(row.route)![1]!.toUpperCase()
      const path = await row.path(world)
      for (const [i, role] of ROLES.entries()) {
        const answer = await clients.get(role)!.send(method, path, row.body?.(world, role))
        if (row.stream && answer.ok) await answer.body!.cancel() // it would go on telling
        const text = row.stream && answer.ok ? '' : await answer.text()
        if (answer.status !== row.expected[i])
          wrong.push(
            `${row.route} as ${role}: ${answer.status} instead of ${row.expected[i]}: ${text.slice(0, 160)}`,
          )
        if (answer.status >= 400) {
          const problem = JSON.parse(text)
          if (
            !/problem\+json/.test(answer.headers.get('content-type') ?? '') ||
            !/[.?]$/.test(problem.detail)
          )
            wrong.push(`${row.route} as ${role}: no sentence in ${text.slice(0, 160)}`)
        }
      }
    }
    expect(wrong).toEqual([])
  })

  it('does not tell an address that is not there from one that is not yours', async () => {
    const liv = await world.as('liv')
    const outsider = await world.as('outsider')
    const texts = await Promise.all(
      [
        outsider.send('GET', `/api/activities/${world.dredge.id}`),
        outsider.send('GET', `/api/activities/${key()}`),
        liv.send('GET', `/api/activities/${world.essays.id}`),
        liv.send('GET', `/api/activities/${world.pilot.id}`),
      ].map(async a => (await a).text()),
    )
    expect(new Set(texts).size).toBe(1)
  })

  it('refuses writes from other sites, and writes that do not say where they come from', async () => {
    const liv = await world.as('liv')
    for (const origin of ['https://elsewhere.example', 'null', '']) {
      const answer = await liv.send('PUT', dredge('/visit')(world), { seq: 1 }, { origin })
      expect(answer.status).toBe(403)
    }
  })

  it('signs out on the server: the old cookie is worth nothing', async () => {
    const liv = await world.as('liv')
    expect((await liv.send('GET', seminar()(world))).status).toBe(200)
    await liv.send('DELETE', '/api/session')
    expect((await liv.send('GET', seminar()(world))).status).toBe(401)
  })

  it('keeps cookies from scripts, and marks them secure behind TLS', async () => {
    const plain = await world.nobody.send('POST', '/api/session', {
      email: 'paz@northmere.example',
      password: 'harbour',
    })
    expect(plain.headers.get('set-cookie')).toMatch(/HttpOnly/)
    expect(plain.headers.get('set-cookie')).toMatch(/SameSite=Lax/)
    const host = new URL(world.address).host
    const tls = await world.nobody.send(
      'POST',
      '/api/session',
      { email: 'paz@northmere.example', password: 'harbour' },
      { 'x-forwarded-proto': 'https', origin: `https://${host}` },
    )
    expect(tls.headers.get('set-cookie')).toMatch(/Secure/)
  })

  it('slows guessing of a password down', async () => {
    const statuses: number[] = []
    for (let i = 0; i < 12; i++)
      statuses.push(
        (
          await world.nobody.send('POST', '/api/session', {
            email: 'nico@northmere.example',
            password: words(1),
          })
        ).status,
      )
    expect(statuses.slice(0, 10)).toEqual(Array(10).fill(401))
    expect(statuses.slice(10)).toEqual([429, 429])
  })
})
