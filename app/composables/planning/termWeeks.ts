import { dateFormat } from '#core/language/dateFormat'
import { dayAfter } from '#core/planning/week'

/** Monday of the week a local day lies in, YYYY-MM-DD. */
export function mondayOf(day: string): string {
  return dayAfter(day, -((new Date(`${day}T12:00:00Z`).getUTCDay() + 6) % 7))
}

/** "7 Sep 2026", of a local day. */
export const dayWords = (day: string): string =>
  dateFormat('en-GB', { timeZone: 'UTC', day: 'numeric', month: 'short', year: 'numeric' })
    .format(new Date(`${day}T12:00:00Z`))
    .replace('Sept', 'Sep')

/** Time zones to choose from, one's own first. */
export function timeZones(): string[] {
  const own = Intl.DateTimeFormat().resolvedOptions().timeZone
  return [...new Set([own, ...Intl.supportedValuesOf('timeZone')])]
}
