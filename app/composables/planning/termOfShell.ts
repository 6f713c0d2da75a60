import type { UsualDue } from '#core/planning/proposeSchedule'
import { localDay, type Term } from '#core/planning/week'
import type { SeminarShell } from '#shared/people/seminar'

/** The term of a seminar, as its weeks tell it. */
export const termOfShell = ({ weeks, timeZone }: Pick<SeminarShell, 'weeks' | 'timeZone'>): Term => ({
  firstDay: localDay(new Date(weeks[0]!.startsAt), timeZone),
  weeks: weeks.length,
  timeZone,
  breaks: weeks.filter(w => w.label === null).map(w => ({ week: w.number, title: w.title ?? '' })),
})

/** When work in a seminar is usually due. */
export const usualDueOf = (shell: Pick<SeminarShell, 'usualDueWeekday' | 'usualDueTime'>): UsualDue => ({
  weekday: shell.usualDueWeekday,
  time: shell.usualDueTime,
})
