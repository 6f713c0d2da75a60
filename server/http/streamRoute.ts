import { createEventStream, defineEventHandler, type H3Event } from 'h3'
import { whenAccessMayEnd } from '#server/access/endings'
import { forgetSession, requirePerson } from '#server/access/session'
import { now } from '#server/clock'
import type { Database } from '#server/database/client'
import { useDatabase } from '#server/database/connection'
import type { Endpoint, Read } from '#shared/http/endpoint'
import { madeFrom } from './endpointOf'
import { Problem } from './problem'
import { answerProblem, paramsOf } from './route'

const HEARTBEAT = 25_000 // milliseconds: below what proxies cut, and how often it is asked anew whether one may still listen

const MOST_STREAMS = 40 // of one person, in one process
const open = new Map<string, number>()
const streamsOf = (personId: string): number => open.get(personId) ?? 0

interface Asked<P> {
  readonly event: H3Event
  readonly db: Database
  readonly params: P
  readonly now: Date
}

/**
 * Wraps a route that goes on telling: server-sent events, until the reader leaves or may not listen any more.
 * @param access as for any route; asked again with every heartbeat, and when the reader's access may have ended
 * @param start begins to send, and answers how to stop
 */
export function streamRoute<E extends Endpoint, Who>(
  endpoint: E,
  access: (asked: Asked<Read<E['params']>>) => Promise<Who>,
  start: (db: Database, who: Who, send: (message: unknown) => void) => Promise<() => void>,
) {
  const handler = defineEventHandler(async event => {
    try {
      const params = paramsOf(event, endpoint)
      const db = useDatabase()
      const ask = async () => {
        forgetSession(event)
        return access({ event, db, params, now: now() })
      }
      const who = await ask()
      const { id: personId } = await requirePerson(event)
      if (streamsOf(personId) >= MOST_STREAMS)
        throw new Problem(429, 'tooManyStreams', 'Jovrel is open in too many tabs. Close some of them.')
      open.set(personId, streamsOf(personId) + 1)
      const stream = createEventStream(event)
      const stop = await start(db, who, message => void stream.push(JSON.stringify(message)))
      const askAgain = () => {
        ask().then(
          () => stream.push({ event: 'beat', data: 'on' }),
          () => stream.close(),
        )
      }
      const beat = setInterval(askAgain, HEARTBEAT)
      const forget = whenAccessMayEnd(personId, askAgain)
      stream.onClosed(async () => {
        open.set(personId, streamsOf(personId) - 1)
        if (streamsOf(personId) === 0) open.delete(personId)
        clearInterval(beat)
        forget()
        stop()
        await stream.close()
      })
      void stream.push({ event: 'beat', data: 'on' }) // so that the browser knows at once that it listens
      return stream.send()
    } catch (error) {
      return answerProblem(event, error)
    }
  })
  return madeFrom(endpoint, handler)
}
