import { randomUUID } from 'node:crypto'
import {
  defineEventHandler,
  getQuery,
  getResponseHeader,
  getRouterParams,
  setResponseHeader,
  setResponseStatus,
  type H3Event,
} from 'h3'
import { ZodError, type z } from 'zod'
import { useDatabase, type PoolName } from '#server/database/connection'
import { databaseFailure } from '#server/database/failure'
import { countQueries } from '#server/database/queryCount'
import type { Database } from '#server/database/client'
import { now } from '#server/clock'
import { LARGEST_BODY, LARGEST_UNASKED } from '#shared/http/limits'
import type { Endpoint, Read, Sent } from '#shared/http/endpoint'
import { getPerson, notSignedIn } from '#server/access/session'
import { logError, logSeldom } from '#server/log'
import { logAccess } from './accessLog'
import { readLimited } from './body'
import { madeFrom } from './endpointOf'
import { requireWellFormed } from './json'
import { longAct } from './longAct'
import { parseBody } from './longJson'
import { Problem, problemOf } from './problem'

/** Says how far long work has come: `done` of `of`. */
export type Progress = (done: number, of: number) => void

export interface RouteContext<P, B, Q> {
  readonly event: H3Event
  readonly db: Database
  readonly now: Date
  readonly begun: Date // when the request began to come in: a slow upload counts by it
  readonly params: P
  readonly query: Q
  readonly body: B
  readonly progress: Progress // without effect unless the route is one of `progressRoute`
}

type Handle<E extends Endpoint> = (
  context: RouteContext<Read<E['params']>, Read<E['body']>, Read<E['query']>>,
) => Promise<Sent<E['answer']>>

/**
 * Wraps a route: parses what comes in, answers through the contract (fields it does not name never leave),
 * and turns every failure into problem details. Nothing of an unexpected error is told but that it happened.
 */
export function route<E extends Endpoint>(endpoint: E, handle: Handle<E>, pool = poolOf(endpoint)) {
  const answerTo = answering(endpoint, handle, pool)
  const handler = defineEventHandler(async event =>
    jsonOf(event, await (SHOW_QUERIES ? showQueries(event, answerTo) : answerTo(event))),
  )
  return madeFrom(endpoint, handler)
}

/** An answer as JSON without a space in it: the framework would set it out in lines, half as large again. */
function jsonOf(event: H3Event, answer: unknown): unknown {
  if (answer === undefined || answer === null) return answer
  if (!getResponseHeader(event, 'content-type')) setResponseHeader(event, 'content-type', 'application/json')
  return JSON.stringify(answer)
}

function answering<E extends Endpoint>(endpoint: E, handle: Handle<E>, pool: PoolName) {
  return async (event: H3Event): Promise<unknown> => {
    setResponseHeader(event, 'cache-control', 'private, no-store')
    const begun = now()
    try {
      const params = paramsOf(event, endpoint)
      const body = endpoint.body
        ? endpoint.body.parse(await readJson(event, endpoint.largest ?? LARGEST_BODY))
        : undefined
      const query = queryOf(event, endpoint)
      const answer = await handle({
        event,
        db: useDatabase(pool),
        now: now(),
        begun,
        params,
        query,
        body: body as Read<E['body']>, // parsed by that contract just above
        progress: progressOf(event),
      })
      await logAccess(event, endpoint, null)
      return parseAnswer(answerContract(endpoint), answer)
    } catch (error) {
      await logAccess(event, endpoint, error)
      return answerProblem(event, error)
    }
  }
}

/** For tests and measurements: with `JOVREL_SHOW_QUERIES` each answer says how many statements it took. */
const SHOW_QUERIES = process.env.JOVREL_SHOW_QUERIES === '1'

async function showQueries(event: H3Event, answerTo: (event: H3Event) => Promise<unknown>): Promise<unknown> {
  const { answer, queries } = await countQueries(() => answerTo(event))
  setResponseHeader(event, 'server-timing', `queries;desc="${queries}"`)
  return answer
}

/** Signing in has connections of its own, so that it goes on whatever else waits. */
const poolOf = ({ path }: Endpoint): PoolName => (path.startsWith('/api/session') ? 'access' : 'main')

const progressOf = (event: H3Event): Progress =>
  (event.context.progress as Progress | undefined) ?? (() => {})

/**
 * The same for work that takes a while: once it has said how far it is, the answer goes out as lines of JSON: `{done, of}`
 * as often as there is something to say, and last either `{answer}` or `{problem}`. What fails before that fails like any route.
 */
export function progressRoute<E extends Endpoint>(endpoint: E, handle: Handle<E>) {
  const plain = answering(endpoint, context => longAct(context.event, () => handle(context)), 'long')
  const handler = defineEventHandler(async event => {
    let begun: (stream: ReadableStream) => void
    const stream = new Promise<ReadableStream>(resolve => {
      begun = resolve
    })
    let lines: ReadableStreamDefaultController | null = null
    const write = (line: unknown) => lines?.enqueue(new TextEncoder().encode(`${JSON.stringify(line)}\n`))
    event.context.progress = (done: number, of: number) => {
      if (!lines)
        begun(
          new ReadableStream({
            start: controller => {
              lines = controller
            },
          }),
        )
      write({ done, of })
    }
    const finished = Promise.resolve(plain(event)).then(answer => {
      if (!lines) return answer
      // a failure comes as problem details with their status inside, because the status line has gone out already
      write(
        (answer as { status?: number }).status && (answer as { detail?: string }).detail
          ? { problem: answer }
          : { answer },
      )
      lines.close()
      return undefined
    })
    const first = await Promise.race([stream, finished])
    if (!(first instanceof ReadableStream)) return jsonOf(event, first)
    setResponseStatus(event, 200)
    setResponseHeader(event, 'content-type', 'application/x-ndjson')
    return first
  })
  return madeFrom(endpoint, handler)
}

/** Parameters of the address. One that cannot exist is answered like one that does not: nothing is learnt from the difference. */
export function paramsOf<E extends Endpoint>(event: H3Event, endpoint: E): Read<E['params']> {
  const parsed = endpoint.params?.safeParse(getRouterParams(event))
  if (parsed && !parsed.success) throw new Problem(404, 'notFound', 'There is nothing at this address.')
  return parsed?.data as Read<E['params']> // parsed by that contract
}

export function queryOf<E extends Endpoint>(event: H3Event, endpoint: E): Read<E['query']> {
  const query = getQuery(event)
  for (const value of Object.values(query)) for (const text of [value].flat()) requireWellFormed(String(text))
  return endpoint.query?.parse(query) as Read<E['query']> // parsed by that contract
}

/** A body of JSON. Who sends much is asked for first: of a stranger no more is read than signing in takes. */
async function readJson(event: H3Event, largest: number): Promise<unknown> {
  const isKnown = (await getPerson(event)) !== null
  const raw = await readLimited(event, isKnown ? largest : Math.min(largest, LARGEST_UNASKED), () =>
    isKnown ? tooLarge(largest) : notSignedIn(),
  )
  return raw.length > 0 ? parseBody(raw) : undefined
}

function tooLarge(largest: number): Problem {
  const sentence =
    largest > LARGEST_BODY
      ? `This file is too large; up to ${Math.floor(largest / 1_400_000)} MB can be taken. Nothing was changed.`
      : 'This is too much text for one contribution. Shorten it or link to the rest; what you typed is kept here.'
  const field = largest > LARGEST_BODY ? 'file' : 'doc'
  return new Problem(413, 'tooLarge', sentence, { fields: { [field]: sentence } })
}

export function answerProblem(event: H3Event, error: unknown) {
  const findProblem = () => {
    if (error instanceof Problem) return error
    if (error instanceof ZodError) return problemOf(error)
    const failure = databaseFailure(error)
    if (failure) return databaseProblem(event, error, failure)
    return unexpected(event, error)
  }
  const problem = findProblem()
  setResponseStatus(event, problem.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  return problem.details()
}

export function answerContract({ answer, path }: Endpoint): z.ZodType {
  if (!answer) throw new Error(`${path} has no contract for its answer in the endpoint book`)
  return answer
}

/** An answer that misses its contract is our own fault, unlike a body that does. */
function parseAnswer(schema: z.ZodType, answer: unknown): unknown {
  const parsed = schema.safeParse(answer)
  if (!parsed.success) throw new Error(`answer misses its contract: ${parsed.error.message}`)
  return parsed.data
}

function databaseProblem(event: H3Event, error: unknown, failure: 'away' | 'slow'): Problem {
  logSeldom('database', error, { route: `${event.method} ${event.context.matchedRoute?.path ?? 'a page'}` })
  setResponseHeader(event, 'retry-after', 2)
  return new Problem(503, failure === 'away' ? 'databaseAway' : 'busy', UNREACHED[failure])
}
const UNREACHED = {
  away: 'Jovrel cannot reach its database at the moment. Nothing was changed; try again in a few seconds.',
  slow: 'This took too long, because much is going on just now. Nothing was changed; try again in a minute.',
}

/** The log and the person get the same number, by which one is found from the other. */
function unexpected(event: H3Event, error: unknown): Problem {
  const request = randomUUID().slice(0, 8)
  logError('request', error, {
    request,
    route: `${event.method} ${event.context.matchedRoute?.path ?? 'a page'}`,
  })
  return new Problem(
    500,
    'unexpected',
    `Something went wrong on our side. Nothing was changed; please try again. If it stays so, tell whoever runs your Jovrel the number ${request}.`,
  )
}
