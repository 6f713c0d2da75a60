import { defineEventHandler, getRequestHeader } from 'h3'
import { isOwnOrigin } from '#server/http/client'
import { answerProblem } from '#server/http/route'
import { Problem } from '#server/http/problem'

/** Writes come from our own pages only: a browser always says where a write comes from, so silence is refused too. */
export default defineEventHandler(event => {
  if (event.method === 'GET' || event.method === 'HEAD' || !event.path.startsWith('/api/')) return
  if (isOwnOrigin(event, getRequestHeader(event, 'origin'))) return
  return answerProblem(
    event,
    new Problem(403, 'otherOrigin', 'This came from another site and was not done.'),
  )
})
