import { dateFormat } from '#core/language/dateFormat'

/** What the clocks of a zone show, "23:59". */
export const clockAt = (at: Date, timeZone: string): string =>
  dateFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(at)

/** "Wednesday 14 October, 23:59" */
export const localTime = (at: Date, timeZone: string): string =>
  dateFormat('en-GB', {
    timeZone,
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    hour: '2-digit',
    minute: '2-digit',
  })
    .format(at)
    .replace(' at ', ', ')
