import { passwordAgain } from '#server/http/passwordAgain'
import { route } from '#server/http/route'
import { removePasskey } from '#server/services/people/passkeys'
import { secondFactorView } from '#server/services/people/secondStep'
import * as passkeyEndpoints from '#shared/people/passkeyEndpoints'

export default route(passkeyEndpoints.removePasskey, async ({ event, db, params, body }) => {
  const { person } = await passwordAgain(event, db, body.password)
  await removePasskey(db, person.id, params.passkeyId)
  return secondFactorView(db, person.id)
})
