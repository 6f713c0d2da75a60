import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { secondFactorView } from '#server/services/people/secondStep'
import * as secondFactorEndpoints from '#shared/people/secondFactorEndpoints'

export default route(secondFactorEndpoints.readSecondFactor, async ({ event, db }) =>
  secondFactorView(db, (await requirePerson(event)).id),
)
