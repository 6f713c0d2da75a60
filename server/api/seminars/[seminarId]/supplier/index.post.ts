import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeFromSupplier } from '#server/kinds/reading/supplier'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.takeFromSupplier, async ({ event, db, params, body, now }) =>
  takeFromSupplier(db, await requireManager(event, db, params.seminarId), body, now),
)
