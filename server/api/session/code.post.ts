import { countCode } from '#server/access/limits'
import { beginSession } from '#server/access/session'
import { endStep, personOfStep } from '#server/access/signInStep'
import { route } from '#server/http/route'
import { requireCode } from '#server/services/people/secondFactor'
import { personById, sessionView } from '#server/services/people/session'
import * as secondFactorEndpoints from '#shared/people/secondFactorEndpoints'

export default route(secondFactorEndpoints.signInByCode, async ({ event, db, body }) => {
  const personId = await personOfStep(event, db)
  const tries = await countCode(db, personId)
  await requireCode(db, personId, body.code)
  await tries.giveBack()
  await endStep(event, db)
  await beginSession(event, db, personId)
  return { session: await sessionView(db, await personById(db, personId)) }
})
