import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { changeText } from '#server/services/contributing/reading/library'
import { TextChange, TextParams } from '#shared/contributing/reading'
import { Done } from '#shared/contributing/thread'

export default route(
  { params: TextParams, body: TextChange, answer: Done },
  async ({ event, db, params, body, now }) =>
    changeText(db, await requireManager(event, db, params.seminarId), params.textId, body, now),
)
