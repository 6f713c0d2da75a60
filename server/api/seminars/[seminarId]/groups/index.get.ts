import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { groupsView } from '#server/services/people/groupsView'
import { GroupsView } from '#shared/people/groups'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: GroupsView }, async ({ event, db, params }) =>
  groupsView(db, await requireMember(event, db, params.seminarId)),
)
