import { z } from 'zod'

/** What is done by itself when its time has come, and what it is called where it could not be done. */
export const DUE_TASKS = {
  publish: 'publish an activity',
  show: 'show a contribution',
  deal: 'assign reviews',
  release: 'show reviews to authors',
  return: 'return a mark',
  tellOfReturn: 'tell a student of a returned mark',
  tellOfClosing: 'tell students of closing questions',
  writeByRule: 'write by a rule',
  tellOfMessage: 'tell a student of a message',
  judge: 'work out where students stand',
} as const
export type DueTask = keyof typeof DUE_TASKS

export const DueFailure = z.object({
  task: z.enum(Object.keys(DUE_TASKS) as [DueTask, ...DueTask[]]), // its keys are the tasks
  subjectId: z.uuid(),
  seminar: z.string(),
  reason: z.string(), // a code, by which the log is searched
  tries: z.number().int(),
  firstAt: z.iso.datetime(),
  lastAt: z.iso.datetime(),
  nextAt: z.iso.datetime(),
})
export type DueFailure = z.infer<typeof DueFailure>
export const DueFailures = z.object({ failures: z.array(DueFailure) })
export type DueFailures = z.infer<typeof DueFailures>
