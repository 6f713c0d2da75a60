import { z } from 'zod'
import { NOTICE_KINDS } from '#core/messaging/noticeKinds'

export const NoticeList = z.object({
  notices: z.array(
    z.object({
      id: z.uuid(),
      kind: z.enum(NOTICE_KINDS),
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
