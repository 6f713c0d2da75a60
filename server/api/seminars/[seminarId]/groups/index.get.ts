import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { groupsView } from '#server/services/people/groupsView'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readGroups, async ({ event, db, params }) =>
  groupsView(db, await requireMember(event, db, params.seminarId)),
)
