import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { orderActivity } from '#server/services/planning/moveActivity'
import { Done } from '#shared/contributing/thread'
import { OrderWrite } from '#shared/planning/composer'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: OrderWrite, answer: Done },
  async ({ event, db, params, body }) =>
    orderActivity(db, await requireManager(event, db, params.seminarId), body),
)
