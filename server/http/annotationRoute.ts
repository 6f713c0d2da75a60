import { createHash } from 'node:crypto'
import {
  defineEventHandler,
  getRequestHeader,
  getRouterParam,
  setResponseHeaders,
  setResponseStatus,
  type H3Event,
} from 'h3'
import { z } from 'zod'
import { requireMayWrite, type Actor, type ActivityRow } from '#server/access/seminar'
import { now } from '#server/clock'
import type { Database } from '#server/database/client'
import { useDatabase } from '#server/database/connection'
import { actorOfToken } from '#server/kinds/reading/toolsToken'
import { Problem } from './problem'
import { answerProblem } from './route'

export const ANNOTATION_TYPE =
  'application/ld+json; profile="http://www.w3.org/ns/anno.jsonld"; charset=utf-8'
type Method = 'GET' | 'HEAD' | 'OPTIONS' | 'POST' | 'DELETE'
interface Context {
  readonly db: Database
  readonly actor: Actor & { readonly activity: ActivityRow }
  readonly now: Date
}

/** Wraps what one's own programs reach by their token (RFC 6750, Bearer): nobody is signed in by it, and without it nothing is said. */
export function annotationRoute(
  methods: readonly Method[],
  handle: (event: H3Event, context: Context) => Promise<unknown>,
) {
  return defineEventHandler(async event => {
    setResponseHeaders(event, {
      'cache-control': 'private, no-cache',
      vary: 'Accept, Authorization',
      allow: methods.join(', '),
      'access-control-allow-origin': '*',
      'access-control-allow-headers': 'Authorization, Content-Type, Prefer',
      'access-control-allow-methods': methods.join(', '),
      'access-control-expose-headers': 'ETag, Link, Location, Allow',
    })
    try {
      if (event.method === 'OPTIONS') {
        setResponseStatus(event, 204)
        return null
      }
      if (!methods.includes(event.method as Method))
        throw new Problem(405, 'method', 'This is not done here.')
      const db = useDatabase()
      const token = /^Bearer\s+(\S{20,200})$/i.exec(getRequestHeader(event, 'authorization') ?? '')?.[1]
      const activityId = z.uuid().safeParse(getRouterParam(event, 'activityId'))
      const actor = token && activityId.success ? await actorOfToken(db, activityId.data, token, now()) : null
      if (!actor) {
        setResponseHeaders(event, { 'www-authenticate': 'Bearer realm="annotations"' })
        throw new Problem(
          401,
          'token',
          'This token opens nothing. Make a new one in Jovrel, beside the reading.',
        )
      }
      if (event.method === 'POST' || event.method === 'DELETE') requireMayWrite(actor)
      const answer = await handle(event, { db, actor, now: now() })
      if (answer === null || event.method === 'DELETE') return answer
      const text = JSON.stringify(answer)
      const tag = `"${createHash('sha256').update(text).digest('base64url').slice(0, 27)}"`
      setResponseHeaders(event, { etag: tag })
      if (event.method !== 'POST' && getRequestHeader(event, 'if-none-match') === tag) {
        setResponseStatus(event, 304)
        return null
      }
      return text
    } catch (error) {
      return answerProblem(event, error)
    }
  })
}
