import { dateFormat } from '#core/language/dateFormat'
import type { SeminarShell } from '#shared/people/seminar'

export interface Period {
  readonly key: string
  readonly label: string
  readonly startsAt: string
  readonly endsAt: string
}

/** The periods of a term that entries are listed by: its weeks, or its months, up to now, the newest first. */
export function entryPeriods(
  shell: Pick<SeminarShell, 'weeks' | 'now' | 'timeZone'>,
  by: 'week' | 'month',
): Period[] {
  const begun = shell.weeks.filter(w => w.startsAt <= shell.now)
  const weeks = begun.map(w => ({
    key: `w${w.number}`,
    label: w.title ? `${w.title}` : `Week ${w.label ?? w.number}`,
    startsAt: w.startsAt,
    endsAt: w.endsAt,
  }))
  if (by === 'week') return weeks.reverse()
  const format = dateFormat('en-GB', {
    timeZone: shell.timeZone,
    month: 'long',
    year: 'numeric',
  })
  const months: Period[] = []
  // a month begins with the first week that begins in it: entries are listed by whole weeks
  for (const w of weeks) {
    const label = format.format(new Date(w.startsAt))
    const last = months.at(-1)
    if (last?.label === label) months[months.length - 1] = { ...last, endsAt: w.endsAt }
    else months.push({ key: label, label, startsAt: w.startsAt, endsAt: w.endsAt })
  }
  return months.reverse()
}

/** The period something falls in; what came before the term counts with its first. */
export const periodOf = (periods: readonly Period[], at: string): Period | undefined =>
  periods.find(p => at >= p.startsAt && at < p.endsAt) ??
  (periods.length > 0 && at < periods.at(-1)!.startsAt ? periods.at(-1) : periods[0])
