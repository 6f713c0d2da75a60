import { endSession } from '#server/access/session'
import { route } from '#server/http/route'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.signOut, async ({ event, db }) => {
  await endSession(event, db)
  return { done: true }
})
