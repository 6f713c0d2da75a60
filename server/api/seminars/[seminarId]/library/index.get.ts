import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { libraryView } from '#server/services/marking/rubrics'
import { LibraryView } from '#shared/marking/rubric'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: LibraryView }, async ({ event, db, params }) =>
  libraryView(db, await requireStaff(event, db, params.seminarId)),
)
