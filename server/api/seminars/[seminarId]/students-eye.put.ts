import { isStaff, notYours, requireOwnSelf } from '#server/access/seminar'
import { setActingAs } from '#server/access/session'
import { route } from '#server/http/route'
import { practiceEnrolment } from '#server/services/people/studentsEye'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.lookAsStudent, async ({ event, db, params, body }) => {
  const actor = await requireOwnSelf(event, db, params.seminarId)
  if (!isStaff(actor.enrolment))
    throw notYours("The student's eye is for the instructor and assistants of this seminar.")
  await setActingAs(event, db, body.on ? await practiceEnrolment(db, actor) : null)
  return { done: true }
})
