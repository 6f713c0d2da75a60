import { v7 } from 'uuid'
import type { z } from 'zod'
import { ownerNow } from '~/autosave/ownedKey'
import { PERSON_HEADER } from '#shared/http/personHeader'
import { addressOf, type Endpoint, type Read } from '#shared/http/endpoint'
import { ProblemDetails } from '#shared/http/problem'

/** A refused or failed request, with a sentence for the person. */
export class ApiProblem extends Error {
  constructor(readonly details: ProblemDetails) {
    super(details.detail)
    this.name = 'ApiProblem'
  }

  get status() {
    return this.details.status
  }
  get code() {
    return this.details.code
  }
  /** The sentence that belongs beside a field, if one does. */
  at(field: string) {
    return this.details.fields?.[field] ?? null
  }
}

const UNREACHED: ProblemDetails = {
  type: 'about:blank',
  title: 'Not reached',
  status: 0,
  code: 'unreached',
  detail: 'Jovrel could not be reached. Try again in a moment.',
}
/** The same where somebody has typed something: it stands where it was. */
const UNREACHED_WRITE: ProblemDetails = {
  ...UNREACHED,
  detail: 'Jovrel could not be reached. What you typed is kept here; try again in a moment.',
}
/** It answered, and not as it should. */
const broken = (status: number, { method, body }: Endpoint): ProblemDetails => ({
  type: 'about:blank',
  title: 'Failed',
  status,
  code: 'failed',
  detail:
    method !== 'GET' && body
      ? 'Something went wrong on Jovrel’s side. What you typed is kept here; try again in a moment.'
      : 'Something went wrong on Jovrel’s side. Try again in a moment.',
})
/** What a gateway says for a server it cannot reach. */
const GATEWAY = new Set([502, 503, 504])
const unreached = ({ method, body }: Endpoint) => (method !== 'GET' && body ? UNREACHED_WRITE : UNREACHED)

/** A key for one write. Sent again after a lost answer, it makes sure that the write is done once. */
export const newKey = (): string => v7()

/** What a reader gets may be given on as it is: nothing here changes it. */
type Frozen<T> = T extends readonly (infer U)[]
  ? readonly Frozen<U>[]
  : T extends object
    ? { readonly [K in keyof T]: Frozen<T[K]> }
    : T
/** What stands in an address is text in the end: any text may be asked for, and the server says what it thinks of it. */
type Asked<T> = { readonly [K in keyof T]: T[K] | string | null }
type Field<K extends string, S> = S extends z.ZodType
  ? Record<never, never> extends z.input<S>
    ? { readonly [k in K]?: Frozen<z.input<S>> }
    : { readonly [k in K]: Frozen<z.input<S>> }
  : unknown
/** Parameters, query and body of an endpoint, as its contracts take them. */
export type InputOf<E extends Endpoint> = Field<'params', E['params']> &
  (E['query'] extends z.ZodType
    ? Record<never, never> extends z.input<E['query']>
      ? { readonly query?: Asked<z.input<E['query']>> }
      : { readonly query: Asked<z.input<E['query']>> }
    : unknown) &
  Field<'body', E['body']>
type Given<E extends Endpoint> =
  Record<never, never> extends InputOf<E> ? [input?: InputOf<E>] : [input: InputOf<E>]
interface AnyInput {
  readonly params?: Readonly<Record<string, unknown>>
  readonly query?: unknown
  readonly body?: unknown
}

type PlainFetch = (
  path: string,
  options: {
    readonly method: string
    readonly body: unknown
    readonly retry: number
    readonly headers: Readonly<Record<string, string>>
  },
) => Promise<unknown>

/** Whom a request is sent for: refused where somebody else has signed in in another tab meanwhile. */
const sentFor = (): Record<string, string> => {
  const person = ownerNow()
  return person === null ? {} : { [PERSON_HEADER]: person }
}

/** Requests to our own routes; every failure is an `ApiProblem`. */
export function useApi() {
  // the types of $fetch compare the address with those of all routes; here it is any text, which takes them too long
  const request = useRequestFetch() as unknown as PlainFetch
  async function call<E extends Endpoint>(endpoint: E, ...[input]: Given<E>): Promise<Read<E['answer']>> {
    const { body, ...address } = (input ?? {}) as AnyInput // it is one, whatever the endpoint
    try {
      const answer = await request(addressOf(endpoint, address), {
        method: endpoint.method,
        body,
        retry: 0,
        headers: sentFor(),
      })
      return answer as Read<E['answer']> // the server answers through the contract of this endpoint
    } catch (error) {
      throw problemOf(error, endpoint)
    }
  }
  /** The same for an endpoint whose answer comes in lines, with how far the work has come before it. */
  async function callLong<E extends Endpoint & { readonly progress: true }>(
    endpoint: E,
    input: InputOf<E>,
    progress: (done: number, of: number) => void,
  ): Promise<Read<E['answer']>> {
    const { body, ...address } = input as AnyInput // it is one, whatever the endpoint
    const answer = await fetch(addressOf(endpoint, address), {
      method: endpoint.method,
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json', ...sentFor() },
    }).catch(() => null)
    if (!answer) throw new ApiProblem(unreached(endpoint))
    if (!answer.headers.get('content-type')?.includes('x-ndjson')) {
      const data: unknown = await answer.json().catch(() => null)
      if (!answer.ok) throw problemOf({ data, status: answer.status }, endpoint)
      return data as Read<E['answer']> // see above
    }
    const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader()
    let rest = ''
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      const lines = (rest + part.value).split('\n')
      rest = lines.pop()!
      for (const line of lines) {
        const said = JSON.parse(line) as {
          done?: number
          of?: number
          answer?: Read<E['answer']>
          problem?: unknown
        }
        if (said.problem) throw problemOf({ data: said.problem }, endpoint)
        if (said.answer !== undefined) return said.answer
        progress(said.done!, said.of!)
      }
    }
    throw new ApiProblem(unreached(endpoint))
  }
  return { call, callLong }
}

function problemOf(error: unknown, endpoint: Endpoint): ApiProblem {
  const { data, status } = error as { data?: unknown; status?: number }
  const parsed = ProblemDetails.safeParse(data)
  if (parsed.success) return new ApiProblem(parsed.data)
  return new ApiProblem(status && !GATEWAY.has(status) ? broken(status, endpoint) : unreached(endpoint))
}
