import type { Db } from '#server/database/client'
import { dayAfter, localInstant } from '#core/planning/week'

export const TIME_ZONE = 'Europe/Amsterdam'

/** Week of the term (from 1), weekday (1 is Monday) and local time. */
export type Moment = readonly [number, number, string]

/** One run of the seed: the database, and by which ids the demo's keys stand in it. */
export class Demo {
  seminarId = ''
  readonly enrolment = new Map<string, string>()
  readonly activity = new Map<string, string>()
  readonly written = new Map<string, { id: string; text: string }>()
  readonly prompts = new Map<string, string[]>() // ids in their order, by activity
  rubricVersionId = ''
  readonly otherRubrics = new Map<string, { versionId: string; points: number }>()
  readonly groupPlan = new Map<string, string>()
  readonly criteria: Array<{
    id: string
    max: number
    levels: Array<{ id: string; points: number; title: string; descriptor: string }>
  }> = []

  constructor(
    readonly db: Db,
    readonly firstDay: string,
    readonly passwordHash: string,
  ) {}

  at([week, weekday, time]: Moment): Date {
    return localInstant(dayAfter(this.firstDay, 7 * (week - 1) + weekday - 1), time, TIME_ZONE)
  }
  /** @throws if the text is not written yet */
  require(key: string, by: string) {
    const found = this.written.get(key)
    if (!found) throw new Error(`demo: ${by} needs ${key}, which is not written yet`)
    return found
  }
}
