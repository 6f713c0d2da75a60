import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeFromSupplier } from '#server/services/contributing/reading/supplier'
import * as readingEndpoints from '#shared/contributing/readingEndpoints'

export default route(readingEndpoints.takeFromSupplier, async ({ event, db, params, body, now }) =>
  takeFromSupplier(db, await requireManager(event, db, params.seminarId), body, now),
)
