import { passwordAgain } from '#server/http/passwordAgain'
import { route } from '#server/http/route'
import { endSecondFactor } from '#server/services/people/secondFactor'
import { secondFactorView } from '#server/services/people/secondStep'
import * as secondFactorEndpoints from '#shared/people/secondFactorEndpoints'

export default route(secondFactorEndpoints.endSecondFactor, async ({ event, db, body }) => {
  const { person } = await passwordAgain(event, db, body.password)
  await endSecondFactor(db, person.id)
  return secondFactorView(db, person.id)
})
