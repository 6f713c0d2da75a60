import { TZDate } from '@date-fns/tz'

const QUARTER = 900_000 // clocks are set forward and back on the quarter hour

/** Local day and hour of instants in a time zone. A zone is asked once for each quarter of an hour. */
export function localClock(
  timeZone: string,
): (at: number) => { readonly day: string; readonly hour: number } {
  const known = new Map<number, { readonly day: string; readonly hour: number }>()
  const two = (n: number) => String(n).padStart(2, '0')
  return at => {
    const quarter = Math.floor(at / QUARTER)
    let clock = known.get(quarter)
    if (!clock) {
      const local = new TZDate(quarter * QUARTER, timeZone)
      clock = {
        day: `${local.getFullYear()}-${two(local.getMonth() + 1)}-${two(local.getDate())}`,
        hour: local.getHours(),
      }
      known.set(quarter, clock)
    }
    return clock
  }
}

export interface DayOfTalk {
  readonly day: string
  readonly count: number
  readonly hours: readonly number[]
} // hours: 24 counts

/** How much was said on each day of a span, and in which hours; days without a word stand among the others. */
export function rhythmOf(
  instants: readonly number[],
  timeZone: string,
  days: readonly string[],
): DayOfTalk[] {
  const clock = localClock(timeZone)
  const by = new Map(days.map(day => [day, new Array<number>(24).fill(0)]))
  for (const at of instants) {
    const { day, hour } = clock(at)
    const hours = by.get(day)
    if (hours) hours[hour]!++
  }
  return [...by].map(([day, hours]) => ({ day, count: hours.reduce((a, b) => a + b, 0), hours }))
}
