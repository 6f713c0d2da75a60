import { eq } from 'drizzle-orm'
import { v7 } from 'uuid'
import type { Endpoint } from '#shared/http/endpoint'
import * as t from '#server/database/schema'
import { type World } from '#server/testing/world'

export const ROLES = ['nobody', 'outsider', 'observer', 'paz', 'liv', 'henrik', 'ines'] as const // paz and liv are students
export type Role = (typeof ROLES)[number]
export type Expected = readonly [
  nobody: number,
  outsider: number,
  observer: number,
  paz: number,
  liv: number,
  henrik: number,
  ines: number,
]

export interface Row {
  readonly endpoint: Endpoint
  readonly path: (w: World) => Promise<string> | string
  readonly body?: (w: World, role: Role) => unknown
  readonly stream?: true
  readonly expected: Expected
  readonly withdrawn?: number // what a withdrawn student is answered, where it is not what a stranger is
}

export const key = () => v7()
export const seminar =
  (rest = '') =>
  (w: World) =>
    `/api/seminars/${w.seminar.id}${rest}`
export const dredge =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.dredge.id}${rest}`
export const breakwater =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.breakwater.id}${rest}`
export const record =
  (student: string, rest = '') =>
  async (w: World) =>
    `/api/activities/${w.breakwater.id}/records/${(await w.enrolment(student)).id}${rest}`
export const reports =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.reports.id}${rest}`
export const reviewByLiv =
  (rest = '') =>
  async (w: World) =>
    `/api/reviews/${(await w.allocation(w.reports.id, { by: 'liv' })).id}${rest}`
export const receivedByLiv =
  (rest = '') =>
  async (w: World) =>
    `/api/received/${(await w.allocation(w.teammates.id, { of: 'liv' })).receivedId}${rest}`
export const ofRasmus =
  (rest = '') =>
  async (w: World) =>
    `/api/contributions/${(await w.contribution('rasmus', w.dredge.id)).id}${rest}`

export const MEMBERS: Expected = [401, 404, 200, 200, 200, 200, 200]
export const STUDENTS: Expected = [401, 404, 404, 200, 200, 404, 404]
export const WRITERS: Expected = [401, 404, 403, 200, 200, 200, 200]
export const STAFF: Expected = [401, 404, 403, 403, 403, 200, 200]

export const MANAGERS: Expected = [401, 404, 403, 403, 403, 403, 200]
export const managersGet = (status: number): Expected => [401, 404, 403, 403, 403, 403, status]
export const rubric =
  (rest = '') =>
  async (w: World) =>
    `/api/rubrics/${(await w.rubric('Teammate share')).id}${rest}`
export async function anOutcome(w: World) {
  const [row] = await w.db
    .select()
    .from(t.outcomes)
    .where(eq(t.outcomes.seminarId, w.seminar.id))
    .orderBy(t.outcomes.position)
  return row!
}
export const base64 = (text: string) => Buffer.from(text).toString('base64')
export const rules = { by: 'number', count: 3, together: [], apart: [], mixSections: true, seed: 1 }
export const term = { firstDay: '2027-02-01', weeks: 12, breaks: [] }
export const times = {
  opensAt: '2026-10-12T06:00:00Z',
  phases: [{ name: 'write', startsAt: '2026-10-12T06:00:00Z', endsAt: '2026-10-15T21:59:00Z' }],
}
export const pixel =
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
export const settings = {
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

export const OF_LIV = (status: number): Expected => [401, 404, 403, 404, status, 404, 404]
export const staffGet = (status: number): Expected => [401, 404, 403, 403, 403, status, status]
export const given = { points: {}, remarks: {}, answers: {}, passages: [], private: '' }

export const city =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.city.id}${rest}`
export const terms =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.terms.id}${rest}`
/** A page of Liv's group: no other group's. */
export const chain =
  (rest = '') =>
  async (w: World) =>
    `/api/pages/${(await w.page(w.city.id, 'Qasr el-Mina', 'The chain')).id}${rest}`
export const chainComment =
  (rest = '') =>
  async (w: World) =>
    `/api/contributions/${(await w.contribution('saoirse', w.city.id, 'comment')).id}${rest}`
export const OF_GROUP = (status = 200): Expected => [401, 404, 404, 404, status, status, status]
export const WRITERS_OF_GROUP = (status = 200): Expected => [401, 404, 403, 404, status, status, status]

export const calm =
  (rest = '') =>
  (w: World) =>
    `/api/activities/${w.calm.id}/reading${rest}`
export const text =
  (rest = '') =>
  async (w: World) => {
    const [row] = await w.db.select().from(t.texts)
    return `/api/seminars/${w.seminar.id}/texts/${row!.id}${rest}`
  }

export const CORRESPONDENTS: Expected = [401, 404, 404, 200, 200, 200, 200]
export const STAFF_OR_NOTHING: Expected = [401, 404, 404, 404, 404, 200, 200]
export const conversation =
  (rest = '') =>
  async (w: World) => {
    const [row] = await w.db
      .select()
      .from(t.messageThreads)
      .where(eq(t.messageThreads.studentId, (await w.enrolment('oona')).id))
    return `/api/seminars/${w.seminar.id}/messages/threads/${row!.id}${rest}`
  }
export const ruleOf =
  (rest = '') =>
  async (w: World) => {
    const [row] = await w.db.select().from(t.messageRules)
    return `/api/seminars/${w.seminar.id}/messages/rules/${row!.id}${rest}`
  }

/** Every route against every role. A student is never told more than that something is not theirs. */
