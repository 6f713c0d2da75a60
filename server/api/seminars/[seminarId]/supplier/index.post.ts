import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeFromSupplier } from '#server/services/contributing/reading/supplier'
import { SupplierTake, TextAdded } from '#shared/contributing/reading'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: SupplierTake, answer: TextAdded },
  async ({ event, db, params, body, now }) =>
    takeFromSupplier(db, await requireManager(event, db, params.seminarId), body, now),
)
