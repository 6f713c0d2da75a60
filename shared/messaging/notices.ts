import { z } from 'zod'

export const NoticeList = z.object({
  notices: z.array(
    z.object({
      id: z.uuid(),
      kind: z.enum(['published', 'changed', 'letter', 'group', 'prompt', 'message', 'closing']),
      activityId: z.uuid().nullable(),
      text: z.string(),
      detail: z.string(),
      madeAt: z.iso.datetime(),
      seen: z.boolean(),
    }),
  ),
})
export type NoticeList = z.infer<typeof NoticeList>

export const Mailroom = z.object({
  messages: z.array(
    z.object({
      id: z.uuid(),
      from: z.string(),
      to: z.array(z.string()),
      subject: z.string(),
      text: z.string(),
      receivedAt: z.iso.datetime(),
    }),
  ),
})
export type Mailroom = z.infer<typeof Mailroom>
