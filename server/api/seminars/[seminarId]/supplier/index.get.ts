import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { supplierBooks } from '#server/services/contributing/reading/supplier'
import { SupplierView } from '#shared/contributing/reading'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: SupplierView }, async ({ event, db, params }) => {
  await requireManager(event, db, params.seminarId)
  return supplierBooks()
})
