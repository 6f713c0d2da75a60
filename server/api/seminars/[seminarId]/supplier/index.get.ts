import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { supplierBooks } from '#server/kinds/reading/supplier'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.readSupplier, async ({ event, db, params }) => {
  await requireManager(event, db, params.seminarId)
  return supplierBooks()
})
