import { z } from 'zod'
import { ACTIVITY_KINDS } from '#core/kinds/kind'
import { STANDINGS } from '#core/standing/standing'
import { CheckView, ExpectationView } from '../contributing/activity'
import { LetterView } from '../marking/letter'

export const WeekItem = z.object({
  activityId: z.uuid(),
  kind: z.enum(ACTIVITY_KINDS),
  title: z.string(),
  summary: z.string(),
  opensAt: z.iso.datetime(),
  dueAt: z.iso.datetime(), // next own due time that something is missing for; the close when nothing is
  standing: z.enum(STANDINGS),
  expectations: z.array(ExpectationView),
  checks: z.array(CheckView),
  minutes: z.number(), // about how long what is missing takes
  draft: z.object({ words: z.number().int(), to: z.string().nullable() }).nullable(), // begun and not sent; `to`: given name it answers
})
export type WeekItem = z.infer<typeof WeekItem>

export const MyWeek = z.object({
  due: z.array(WeekItem), // open now, by due time
  late: z.array(WeekItem), // closed with something missing
  done: z.array(WeekItem), // closed, with all that was asked for or marked and returned
  coming: z.array(WeekItem), // opens later, by opening
  closing: z.array(
    z.object({
      activityId: z.uuid(),
      title: z.string(),
      closesAt: z.iso.datetime(),
      named: z.boolean(),
      questions: z.number().int(),
    }),
  ), // open closing questions one has not answered
  letters: z.array(LetterView), // come back, newest first
  days: z.array(z.object({ week: z.number().int(), words: z.number().int(), written: z.array(z.boolean()) })), // Monday to Sunday
  categories: z.array(
    z.object({
      title: z.string(),
      weightPercent: z.number().int(),
      kind: z.enum(ACTIVITY_KINDS).nullable(),
      points: z.number().int().nullable(),
      max: z.number().int().nullable(), // returned so far; null while nothing is
    }),
  ),
})
export type MyWeek = z.infer<typeof MyWeek>
