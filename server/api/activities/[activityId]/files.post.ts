import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { keepAttachment } from '#server/services/files/files'
import { ActivityParams } from '#shared/contributing/activity'
import { FileView, FileWrite } from '#shared/files/file'

export default route(
  { params: ActivityParams, body: FileWrite, largest: 28_000_000, answer: FileView },
  async ({ event, db, params, body, begun, now }) =>
    keepAttachment(db, await requireContributor(event, db, params.activityId, now), body, begun, now),
)
