import { defineEventHandler, getRequestHeader, getRequestURL } from 'h3'
import { answerProblem } from '#server/http/route'
import { Problem } from '#server/http/problem'

/** Writes come from our own pages only: a browser always says where a write comes from, so silence is refused too. */
export default defineEventHandler(event => {
  if (event.method === 'GET' || event.method === 'HEAD' || !event.path.startsWith('/api/')) return
  const origin = getRequestHeader(event, 'origin')
  const own = getRequestURL(event, { xForwardedHost: true, xForwardedProto: true }).origin
  if (origin === own) return
  return answerProblem(
    event,
    new Problem(403, 'otherOrigin', 'This came from another site and was not done.'),
  )
})
