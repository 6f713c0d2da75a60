import { passwordAgain } from '#server/http/passwordAgain'
import { route } from '#server/http/route'
import { Problem } from '#server/http/problem'
import { hasSecondStep, makeRecoveryCodes } from '#server/services/people/secondStep'
import * as secondFactorEndpoints from '#shared/people/secondFactorEndpoints'

export default route(secondFactorEndpoints.renewRecoveryCodes, async ({ event, db, body }) => {
  const { person } = await passwordAgain(event, db, body.password)
  if (!(await hasSecondStep(db, person.id)))
    throw new Problem(409, 'isOff', 'There is no second step to recover. Turn it on first.')
  return { codes: await db.transaction(tx => makeRecoveryCodes(tx, person.id)) }
})
