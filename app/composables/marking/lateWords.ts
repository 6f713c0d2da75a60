import { plural } from '#core/planning/expectationWords'

/** "2 days", "9 hours", "40 minutes": the largest unit that fits. */
export function lateWords(minutes: number): string {
  const [n, unit] =
    minutes >= 1440
      ? [Math.floor(minutes / 1440), 'day']
      : minutes >= 60
        ? [Math.floor(minutes / 60), 'hour']
        : [minutes, 'minute']
  return `${n} ${plural(n, unit)}`
}
