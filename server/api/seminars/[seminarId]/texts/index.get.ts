import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { listTexts } from '#server/services/contributing/reading/library'
import { TextsView } from '#shared/contributing/reading'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: TextsView }, async ({ event, db, params }) =>
  listTexts(db, await requireStaff(event, db, params.seminarId)),
)
