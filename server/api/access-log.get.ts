import { notYours } from '#server/access/seminar'
import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { readAccessLog } from '#server/services/people/accessLog'
import * as accessLogEndpoints from '#shared/people/accessLogEndpoints'

export default route(accessLogEndpoints.readAccessLog, async ({ event, db, query }) => {
  if (!(await requirePerson(event)).foundsSeminars)
    throw notYours('The access log is for the owner of this installation.')
  return readAccessLog(db, query)
})
