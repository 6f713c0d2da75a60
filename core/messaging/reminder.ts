import { dayAfter, localDay, localInstant } from '../planning/week'

/** When a standing rule looks: some local days before something is due, at a local time. */
export interface ReminderTime {
  readonly daysBefore: number
  readonly atTime: string
}
const DAY = 86_400_000

/** @param dueAt the first due time of whoever is looked at, their extension counted */
export const reminderAt = ({ daysBefore, atTime }: ReminderTime, dueAt: Date, timeZone: string): Date =>
  localInstant(dayAfter(localDay(dueAt, timeZone), -daysBefore), atTime, timeZone)

/**
 * Whether it is time: not before its moment, and not so long after that the words would no longer be true. What would
 * have been sent before the rule was switched on is not sent afterwards.
 */
export function isTimeFor(at: Date, dueAt: Date, onSince: Date, now: Date): boolean {
  return at <= now && at >= onSince && now.getTime() < Math.max(dueAt.getTime(), at.getTime() + DAY)
}
