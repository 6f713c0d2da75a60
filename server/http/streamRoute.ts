import { createEventStream, defineEventHandler, getRouterParams, type H3Event } from 'h3'
import type { z } from 'zod'
import { now } from '#server/clock'
import type { Database } from '#server/database/client'
import { useDatabase } from '#server/database/connection'
import { Problem } from './problem'
import { answerProblem } from './route'

const HEARTBEAT = 25_000 // milliseconds: below what proxies cut, and how often it is asked anew whether one may still listen

interface Asked<P> {
  readonly event: H3Event
  readonly db: Database
  readonly params: P
  readonly now: Date
}

/**
 * Wraps a route that goes on telling: server-sent events, until the reader leaves or may not listen any more.
 * @param access as for any route; asked again with every heartbeat
 * @param start begins to send, and answers how to stop
 */
export function streamRoute<P extends z.ZodType, Who>(
  schema: P,
  access: (asked: Asked<z.infer<P>>) => Promise<Who>,
  start: (db: Database, who: Who, send: (message: unknown) => void) => Promise<() => void>,
) {
  return defineEventHandler(async event => {
    try {
      const params = schema.safeParse(getRouterParams(event))
      if (!params.success) throw new Problem(404, 'notFound', 'There is nothing at this address.')
      const db = useDatabase()
      const ask = () => access({ event, db, params: params.data, now: now() })
      const who = await ask()
      const stream = createEventStream(event)
      const stop = await start(db, who, message => void stream.push(JSON.stringify(message)))
      const beat = setInterval(() => {
        ask().then(
          () => stream.push({ event: 'beat', data: 'on' }),
          () => stream.close(),
        )
      }, HEARTBEAT)
      stream.onClosed(async () => {
        clearInterval(beat)
        stop()
        await stream.close()
      })
      void stream.push({ event: 'beat', data: 'on' }) // so that the browser knows at once that it listens
      return stream.send()
    } catch (error) {
      return answerProblem(event, error)
    }
  })
}
