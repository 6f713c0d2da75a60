import { isStaff, notYours, requireOwnSelf } from '#server/access/seminar'
import { setActingAs } from '#server/access/session'
import { route } from '#server/http/route'
import { practiceEnrolment } from '#server/services/people/studentsEye'
import { Done } from '#shared/contributing/thread'
import { SeminarParams, StudentsEyeWrite } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: StudentsEyeWrite, answer: Done },
  async ({ event, db, params, body }) => {
    const actor = await requireOwnSelf(event, db, params.seminarId)
    if (!isStaff(actor.enrolment))
      throw notYours("The student's eye is for the instructor and assistants of this seminar.")
    await setActingAs(event, db, body.on ? await practiceEnrolment(db, actor) : null)
    return { done: true }
  },
)
