import { endSession } from '#server/access/session'
import { route } from '#server/http/route'
import { Done } from '#shared/contributing/thread'

export default route({ answer: Done }, async ({ event, db }) => {
  await endSession(event, db)
  return { done: true }
})
