import { dayAfter } from './week'

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const pad = (n: number) => String(n).padStart(2, '0')

function dayOf(year: number, month: number, day: number): string | null {
  const at = new Date(Date.UTC(year, month - 1, day))
  const isThere = at.getUTCMonth() === month - 1 && at.getUTCDate() === day && year >= 1000 && year <= 9999
  return isThere ? `${year}-${pad(month)}-${pad(day)}` : null
}
const daysBetween = (a: string, b: string) => Math.abs(Date.parse(a) - Date.parse(b))

/**
 * A day as somebody types it: "29 Nov", "Sun 29 Nov 2026", "Nov 29", "29.11.", "29/11/2026", "2026-11-29". Numbers alone
 * are day, then month. Without a year, the one that brings it nearest to another day.
 *
 * @param near a day, "2026-10-14"
 * @returns the day in that form; null where the text is none
 */
export function readDay(text: string, near: string): string | null {
  const words = text.trim().toLowerCase().replace(/,/g, ' ')
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(words)
  if (iso) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const numbers = /^(\d{1,2})\s*[./]\s*(\d{1,2})(?:\s*[./]\s*(\d{2}|\d{4})?)?$/.exec(words)
  const named =
    /^(?:\p{L}{2,9}\.?\s+)?(\d{1,2})\.?\s+(\p{L}{3,9})\.?(?:\s+(\d{4}))?$/u.exec(words) ??
    swapped(/^(\p{L}{3,9})\.?\s+(\d{1,2})(?:\s+(\d{4}))?$/u.exec(words))
  const found = numbers ?? named
  if (!found) return null
  const month = numbers ? Number(found[2]) : MONTHS.indexOf(found[2]!.slice(0, 3)) + 1
  if (month < 1) return null
  return nearest(found[3], month, Number(found[1]), near)
}
const swapped = (found: RegExpExecArray | null) =>
  found ? ([found[0], found[2], found[1], found[3]] as const) : null

function nearest(year: string | undefined, month: number, day: number, near: string): string | null {
  if (year) return dayOf(Number(year.length === 2 ? `20${year}` : year), month, day)
  const about = Number(near.slice(0, 4))
  const all = [about - 1, about, about + 1].flatMap(y => dayOf(y, month, day) ?? [])
  return all.sort((a, b) => daysBetween(a, near) - daysBetween(b, near))[0] ?? null
}

/**
 * A time of day as somebody types it: "23:59", "9", "9.30", "0930", "9:30 pm".
 *
 * @returns "09:30"; null where the text is none
 */
export function readClock(text: string): string | null {
  const found = /^(\d{1,2})(?:[:.h]?(\d{2}))?\s*(am|pm)?$/.exec(text.trim().toLowerCase())
  if (!found) return null
  const [, hour, minute = '00', half] = found
  const isHalf = half !== undefined
  if (isHalf && (Number(hour) < 1 || Number(hour) > 12)) return null
  const hours = isHalf ? (Number(hour) % 12) + (half === 'pm' ? 12 : 0) : Number(hour)
  return hours < 24 && Number(minute) < 60 ? `${pad(hours)}:${minute}` : null
}

/** Monday to Sunday around a month: the weeks a calendar draws. @param month any day of it */
export function weeksOfMonth(month: string): string[][] {
  const first = `${month.slice(0, 8)}01`
  const back = (new Date(first).getUTCDay() + 6) % 7
  const weeks: string[][] = []
  for (let at = dayAfter(first, -back); at.slice(0, 7) <= month.slice(0, 7); at = dayAfter(at, 7))
    weeks.push(Array.from({ length: 7 }, (_, i) => dayAfter(at, i)))
  return weeks
}
