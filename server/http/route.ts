import {
  defineEventHandler,
  getQuery,
  getRequestHeader,
  getRouterParams,
  readRawBody,
  setResponseHeader,
  setResponseStatus,
  type H3Event,
} from 'h3'
import { ZodError, type z } from 'zod'
import { useDatabase } from '#server/database/connection'
import type { Database } from '#server/database/client'
import { now } from '#server/clock'
import { Problem, problemOf } from './problem'

interface Contract<P extends z.ZodType, B extends z.ZodType, A extends z.ZodType, Q extends z.ZodType> {
  readonly params?: P
  readonly query?: Q
  readonly body?: B
  readonly largest?: number // bytes of the body; 1,000,000 unless said
  readonly answer: A
}

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

const LARGEST_BODY = 1_000_000 // bytes; a document of the longest text stays well below

/**
 * Wraps a route: parses what comes in, answers through the contract (fields it does not name never leave),
 * and turns every failure into problem details. Nothing of an unexpected error is told but that it happened.
 */
export function route<
  A extends z.ZodType,
  P extends z.ZodType = z.ZodUndefined,
  B extends z.ZodType = z.ZodUndefined,
  Q extends z.ZodType = z.ZodUndefined,
>(
  contract: Contract<P, B, A, Q>,
  handle: (context: RouteContext<z.infer<P>, z.infer<B>, z.infer<Q>>) => Promise<z.input<A>>,
) {
  return defineEventHandler(async event => {
    setResponseHeader(event, 'cache-control', 'private, no-store')
    const begun = now()
    try {
      const params = contract.params ? parseParams(contract.params, getRouterParams(event)) : undefined
      const body = contract.body
        ? contract.body.parse(await readJson(event, contract.largest ?? LARGEST_BODY))
        : undefined
      const query = contract.query ? contract.query.parse(getQuery(event)) : undefined
      const answer = await handle({
        event,
        db: useDatabase(),
        now: now(),
        begun,
        params: params as z.infer<P>,
        query: query as z.infer<Q>,
        body: body as z.infer<B>,
        progress: progressOf(event),
      })
      return parseAnswer(contract.answer, answer)
    } catch (error) {
      return answerProblem(event, error)
    }
  })
}

const progressOf = (event: H3Event): Progress =>
  (event.context.progress as Progress | undefined) ?? (() => {})

/**
 * The same for work that takes a while: once it has said how far it is, the answer goes out as lines of JSON: `{done, of}`
 * as often as there is something to say, and last either `{answer}` or `{problem}`. What fails before that fails like any route.
 */
export function progressRoute<
  A extends z.ZodType,
  P extends z.ZodType = z.ZodUndefined,
  B extends z.ZodType = z.ZodUndefined,
  Q extends z.ZodType = z.ZodUndefined,
>(
  contract: Contract<P, B, A, Q>,
  handle: (context: RouteContext<z.infer<P>, z.infer<B>, z.infer<Q>>) => Promise<z.input<A>>,
) {
  const plain = route(contract, handle)
  return defineEventHandler(async event => {
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
    if (first instanceof ReadableStream) {
      setResponseStatus(event, 200)
      setResponseHeader(event, 'content-type', 'application/x-ndjson')
    }
    return first
  })
}

/** An address that cannot exist is answered like one that does not: nothing is learnt from the difference. */
function parseParams<P extends z.ZodType>(schema: P, params: unknown): z.infer<P> {
  const parsed = schema.safeParse(params)
  if (!parsed.success) throw new Problem(404, 'notFound', 'There is nothing at this address.')
  return parsed.data
}

async function readJson(event: H3Event, largest: number): Promise<unknown> {
  const length = Number(getRequestHeader(event, 'content-length') ?? 0)
  const sentence =
    largest > LARGEST_BODY
      ? `This file is too large; up to ${Math.floor(largest / 1_400_000)} MB can be taken. Nothing was changed.`
      : 'This is too much text for one contribution. Shorten it or link to the rest; what you typed is kept here.'
  const tooLarge = () =>
    new Problem(413, 'tooLarge', sentence, {
      fields: { [largest > LARGEST_BODY ? 'file' : 'doc']: sentence },
    })
  if (length > largest) throw tooLarge()
  const raw = await readRawBody(event)
  if ((raw?.length ?? 0) > largest) throw tooLarge()
  try {
    return raw ? JSON.parse(raw) : undefined
  } catch {
    throw new Problem(400, 'notJson', 'This request could not be read.')
  }
}

export function answerProblem(event: H3Event, error: unknown) {
  const findProblem = () => {
    if (error instanceof Problem) return error
    if (error instanceof ZodError) return problemOf(error)
    return unexpected(error)
  }
  const problem = findProblem()
  setResponseStatus(event, problem.status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  return problem.details()
}

/** An answer that misses its contract is our own fault, unlike a body that does. */
function parseAnswer<A extends z.ZodType>(schema: A, answer: unknown): z.infer<A> {
  const parsed = schema.safeParse(answer)
  if (!parsed.success) throw new Error(`answer misses its contract: ${parsed.error.message}`)
  return parsed.data
}

function unexpected(error: unknown): Problem {
  console.error(error)
  return new Problem(
    500,
    'unexpected',
    'Something went wrong on our side. Nothing was changed; please try again.',
  )
}
