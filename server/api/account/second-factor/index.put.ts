import { countCode } from '#server/access/limits'
import { requireSession } from '#server/access/session'
import { route } from '#server/http/route'
import { confirmSecondFactor } from '#server/services/people/secondFactor'
import * as secondFactorEndpoints from '#shared/people/secondFactorEndpoints'

export default route(secondFactorEndpoints.confirmSecondFactor, async ({ event, db, body }) => {
  const session = await requireSession(event)
  const tries = await countCode(db, session.person.id)
  const codes = await confirmSecondFactor(db, session, body.code)
  await tries.giveBack()
  return { codes }
})
