import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { draftFor } from '#server/services/messaging/writeTo'
import { DraftAsk, DraftView } from '#shared/messaging/messages'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, body: DraftAsk, answer: DraftView }, async ({ event, db, params, body, now }) =>
  draftFor(db, await requireStaff(event, db, params.seminarId), body.to, body.activityId ?? undefined, now))
