import { plural } from '#core/language'

/** "2 days", "9 hours", "40 minutes": the largest unit that fits, with what is left of a day in hours. */
export function lateWords(minutes: number): string {
  const largestUnit = (): [number, string] => {
    if (minutes >= 1440) return [Math.floor(minutes / 1440), 'day']
    if (minutes >= 60) return [Math.floor(minutes / 60), 'hour']
    return [minutes, 'minute']
  }
  const [n, unit] = largestUnit()
  const hours = unit === 'day' ? Math.floor((minutes % 1440) / 60) : 0
  const rest = hours > 0 ? ` ${hours} ${plural(hours, 'hour')}` : ''
  return `${n} ${plural(n, unit)}${rest}`
}
