import { notYours } from '#server/access/seminar'
import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { readDueFailures } from '#server/services/dueWork'
import * as accessLogEndpoints from '#shared/people/accessLogEndpoints'

export default route(accessLogEndpoints.readDueFailures, async ({ event, db }) => {
  if (!(await requirePerson(event)).foundsSeminars)
    throw notYours('What could not be done is for the owner of this installation to see.')
  return readDueFailures(db)
})
