import { v7 } from 'uuid'
import type { MarkView, RecordView } from '#shared/marking/desk'
import type { ActivityView } from '#shared/contributing/activity'
import type { Client } from './server'
import { doc, type World } from './world'

export interface Refusal {
  readonly code: string
  readonly detail: string
  readonly fields: Record<string, string>
  readonly theirs: MarkView
}

/** Ines and Henrik at the marking desk of the breakwater, as their browsers would ask. */
export async function atTheDesk(world: World) {
  const [ines, henrik] = await Promise.all([world.as('ines'), world.as('henrik')])
  const rubric = (await ines.json<ActivityView>('GET', `/api/activities/${world.breakwater.id}`)).body.rubric!
  const at = async (student: string, rest = '', activity = world.breakwater.id) =>
    `/api/activities/${activity}/records/${(await world.enrolment(student)).id}${rest}`
  const record = async (student: string, as = ines, activity = world.breakwater.id) =>
    (await as.json<RecordView>('GET', await at(student, '', activity))).body
  return {
    ines,
    henrik,
    rubric,
    at,
    record,
    /** Steps by their places on the ladder, 0 the lowest, in the order of the criteria. */
    steps: (...levels: number[]) =>
      levels.map((p, i) => ({
        criterionId: rubric.criteria[i]!.id,
        levelId: rubric.criteria[i]!.levels[p]!.id,
      })),
    /** Saves on top of what stands there, unless a base version is named. */
    mark: async (as: Client, student: string, body: object, activity = world.breakwater.id) =>
      as.json<MarkView & Refusal>('PUT', await at(student, '/mark', activity), {
        key: v7(),
        baseVersion: (await record(student, ines, activity)).mark.version,
        steps: [],
        citations: [],
        letter: doc('Dear {first name},'),
        markerNote: '',
        lateWaived: false,
        ...body,
      }),
    act: async (what: string, student: string, baseVersion?: number) =>
      ines.json<MarkView & Refusal>('POST', await at(student, `/${what}`), {
        key: v7(),
        baseVersion: baseVersion ?? (await record(student)).mark.version,
      }),
  }
}
export type Desk = Awaited<ReturnType<typeof atTheDesk>>
