import type { z } from 'zod'
import type { LoggedAct } from '../people/accessLog'

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'

/**
 * One entry of the endpoint book: routes are made from it, the client calls through it, and the OpenAPI document and the
 * access table read it. How it answers: JSON by `answer`, unless `file` or `events` says otherwise.
 */
export interface Endpoint {
  readonly method: Method
  /** Parameters stand as `:name`, each named in `params`. */
  readonly path: `/api/${string}`
  /** What it does, one line for the OpenAPI document. */
  readonly summary: string
  readonly params?: z.ZodObject
  readonly query?: z.ZodType
  readonly body?: z.ZodType
  /** Bytes of the body; 1,000,000 unless said. */
  readonly largest?: number
  readonly answer?: z.ZodType
  /** Media types of the file it answers with. */
  readonly file?: readonly string[]
  /** It goes on telling, as server-sent events. */
  readonly events?: true
  /** It says how far it is, in lines of JSON, before it answers. */
  readonly progress?: true
  /** What the access log calls it: written down whenever it was done or refused. */
  readonly logged?: LoggedAct
  /** Media type of the file that is its body. */
  readonly upload?: string
}

/** What is sent for a contract, and what comes out of it once it is read; nothing where there is no contract. */
export type Sent<S> = S extends z.ZodType ? z.input<S> : undefined
export type Read<S> = S extends z.ZodType ? z.output<S> : undefined

/** Checks the shape of an entry and keeps its exact type. */
export const endpoint = <const E extends Endpoint>(entry: E): E => entry

interface AddressParts {
  readonly params?: Readonly<Record<string, unknown>>
  readonly query?: unknown
}

/**
 * Address of an endpoint with its parameters and query filled in, each encoded; a query field that is undefined, null or
 * '' is left out.
 *
 * @throws {RangeError} if a parameter of the path is not given
 * @example addressOf({ path: '/api/rubrics/:rubricId', … }, { params: { rubricId: 'a/b' } }) => '/api/rubrics/a%2Fb'
 */
export function addressOf({ path }: Pick<Endpoint, 'path'>, { params, query }: AddressParts): string {
  const filled = path.replace(/:(\w+)/g, (_, name: string) => {
    const value = params?.[name]
    if (value === undefined || value === null || value === '')
      throw new RangeError(`addressOf needs ${name} for ${path}`)
    return encodeURIComponent(String(value))
  })
  const search = new URLSearchParams()
  for (const [name, value] of Object.entries(query ?? {}))
    if (value !== undefined && value !== null && value !== '') search.set(name, String(value))
  return search.size > 0 ? `${filled}?${search}` : filled
}
