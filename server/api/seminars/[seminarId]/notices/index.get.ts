import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownNotices } from '#server/services/messaging/notices'
import { NoticeList } from '#shared/messaging/notices'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: NoticeList }, async ({ event, db, params }) =>
  ownNotices(db, await requireMember(event, db, params.seminarId)),
)
