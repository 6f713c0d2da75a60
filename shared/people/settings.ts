import { z } from 'zod'
import { Grading } from '../marking/gradebook'

const USUAL_GRADING: Grading = {
  missingIsZero: true,
  countHeld: false,
  gradingScaleId: null,
  passPercent: null,
  showTotal: true,
}

export const LocalDay = z.string().regex(/^\d{4}-\d{2}-\d{2}$/, 'Choose a day.')
export const LocalTime = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Write a time like 23:59.')
export const TimeZone = z.string().refine(zone => {
  try {
    return Boolean(new Intl.DateTimeFormat('en', { timeZone: zone }))
  } catch {
    return false
  }
}, 'Choose a time zone of the list.')
const title = (what: string, most = 120) => z.string().trim().min(1, `Write ${what}.`).max(most)

export const TermWrite = z.object({
  firstDay: LocalDay.refine(
    day => new Date(`${day}T12:00:00Z`).getUTCDay() === 1,
    'A term begins on a Monday: choose one.',
  ),
  weeks: z.number().int().min(1, 'A term has one week or more.').max(40, 'Up to 40 weeks fit.'), // breaks included
  breaks: z
    .array(z.object({ week: z.number().int().min(1).max(40), title: title('what the break is called', 40) }))
    .max(10),
})

/** A new seminar. Its id is made by the browser: sent again after a lost answer, it is made once. */
export const SeminarWrite = TermWrite.extend({
  id: z.uuid(),
  code: title('a short code', 20),
  title: title('the title'),
  college: z.string().trim().max(120),
  timeZone: TimeZone,
})
export type SeminarWrite = z.infer<typeof SeminarWrite>
export const SeminarMade = z.object({ seminarId: z.uuid() })
export const SeminarCopy = TermWrite.extend({
  id: z.uuid(),
  code: title('a short code', 20),
  title: title('the title'),
})

export const Unit = z
  .object({
    id: z.uuid(),
    title: title("the unit's theme"),
    fromWeek: z.number().int().min(1).max(40),
    toWeek: z.number().int().min(1).max(40),
  })
  .refine(unit => unit.toWeek >= unit.fromWeek, {
    message: 'A unit ends in the week it begins in or later.',
    path: ['toWeek'],
  })
export const Section = z.object({ id: z.uuid(), title: title("the section's name", 60) })
export const Category = z.object({
  id: z.uuid(),
  title: title("the category's name", 60),
  weightPercent: z.number().int().min(0).max(100, 'A weight is 100 % at most.'),
  dropLowest: z.number().int().min(0, 'None or more are left out.').max(20).default(0),
})
export const GradingScale = z.object({
  id: z.uuid(),
  title: title("the scale's name", 60),
  bands: z
    .array(z.object({ letter: title('the letter', 20), fromPercent: z.number().min(0).max(100) }))
    .min(2, 'A scale has two bands or more.')
    .max(20)
    .refine(
      bands => bands.every((b, i) => i === 0 || b.fromPercent < bands[i - 1]!.fromPercent),
      'Bands go from the highest down.',
    )
    .refine(bands => bands.at(-1)?.fromPercent === 0, 'The last band begins at 0 %.'),
})

/** Everything about a seminar that its instructor can set, sent as a whole. */
export const SettingsBody = TermWrite.extend({
  code: title('a short code', 20),
  title: title('the title'),
  college: z.string().trim().max(120),
  timeZone: TimeZone,
  usualDueTime: LocalTime,
  usualDueWeekday: z.number().int().min(1).max(7),
  grading: Grading.default(USUAL_GRADING),
  units: z.array(Unit).max(30),
  sections: z.array(Section).max(60),
  categories: z.array(Category).max(30),
  scales: z.array(GradingScale).max(10),
  pace: z.object({
    readingWordsPerMinute: z.number().int().min(50).max(1000),
    writingWordsPerMinute: z.number().int().min(1).max(100),
    markingMinutesPerStudent: z.number().min(0).max(120),
  }),
  studentHoursLimit: z.number().int().min(1).max(60),
  markingHoursLimit: z.number().int().min(1).max(60),
  presenceGapDays: z.number().int().min(1).max(120),
}).refine(s => s.breaks.every(b => b.week <= s.weeks), {
  message: 'A break lies within the term.',
  path: ['breaks'],
})
export type SettingsBody = z.infer<typeof SettingsBody>

export const SettingsView = z.object({
  version: z.number().int(),
  archived: z.boolean(),
  settings: SettingsBody,
  markedIn: z.array(z.object({ categoryId: z.uuid(), activities: z.number().int() })), // that count, drafts included
})
export type SettingsView = z.infer<typeof SettingsView>
export const SettingsWrite = z.object({
  key: z.uuid(),
  baseVersion: z.number().int(),
  settings: SettingsBody,
})
export const ArchivedWrite = z.object({ archived: z.boolean() })
