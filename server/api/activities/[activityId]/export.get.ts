import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { exportTalk } from '#server/services/contributing/exportTalk'
import { ActivityParams } from '#shared/contributing/activity'
import { TalkExport, TalkExportQuery } from '#shared/contributing/takeOut'

export default route(
  { params: ActivityParams, query: TalkExportQuery, answer: TalkExport },
  async ({ event, db, params, query, now }) =>
    exportTalk(db, await requireActivity(event, db, params.activityId, now), query.as, now),
)
