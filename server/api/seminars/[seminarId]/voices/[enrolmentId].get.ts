import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readStudent } from '#server/services/voices/readStudent'
import { StudentParams, OneVoice } from '#shared/voices/student'

export default route({ params: StudentParams, answer: OneVoice }, async ({ event, db, params, now }) =>
  readStudent(db, await requireStaff(event, db, params.seminarId), params.enrolmentId, now),
)
