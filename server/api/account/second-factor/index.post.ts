import { passwordAgain } from '#server/http/passwordAgain'
import { route } from '#server/http/route'
import { beginSecondFactor } from '#server/services/people/secondFactor'
import * as secondFactorEndpoints from '#shared/people/secondFactorEndpoints'

export default route(secondFactorEndpoints.beginSecondFactor, async ({ event, db, body }) => {
  const { person } = await passwordAgain(event, db, body.password)
  return beginSecondFactor(db, person.id)
})
