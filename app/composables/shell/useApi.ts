import { v7 } from 'uuid'
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
  detail: 'Jovrel could not be reached. What you typed is kept here; try again in a moment.',
}

/** A key for one write. Sent again after a lost answer, it makes sure that the write is done once. */
export const newKey = (): string => v7()

type PlainFetch = (
  path: string,
  options: { readonly method: string; readonly body: unknown; readonly retry: number },
) => Promise<unknown>

/** Requests to our own routes; every failure is an `ApiProblem`. */
export function useApi() {
  // the types of $fetch compare the address with those of all routes; here it is any text, which takes them too long
  const request = useRequestFetch() as unknown as PlainFetch
  async function call<T>(
    method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE',
    path: string,
    body?: unknown,
  ): Promise<T> {
    try {
      return (await request(path, { method, body, retry: 0 })) as T
    } catch (error) {
      throw problemOf(error)
    }
  }
  /** A post whose answer comes in lines, with how far the work has come before it. */
  async function postLong<T>(
    path: string,
    body: unknown,
    progress: (done: number, of: number) => void,
  ): Promise<T> {
    const answer = await fetch(path, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    }).catch(() => null)
    if (!answer) throw new ApiProblem(UNREACHED)
    if (!answer.headers.get('content-type')?.includes('x-ndjson')) {
      const data: unknown = await answer.json().catch(() => null)
      if (!answer.ok) throw problemOf({ data })
      return data as T
    }
    const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader()
    let rest = ''
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      const lines = (rest + part.value).split('\n')
      rest = lines.pop()!
      for (const line of lines) {
        const said = JSON.parse(line) as { done?: number; of?: number; answer?: T; problem?: unknown }
        if (said.problem) throw problemOf({ data: said.problem })
        if (said.answer !== undefined) return said.answer
        progress(said.done!, said.of!)
      }
    }
    throw new ApiProblem(UNREACHED)
  }
  return {
    postLong,
    get: <T>(path: string) => call<T>('GET', path),
    post: <T>(path: string, body?: unknown) => call<T>('POST', path, body),
    put: <T>(path: string, body?: unknown) => call<T>('PUT', path, body),
    patch: <T>(path: string, body?: unknown) => call<T>('PATCH', path, body),
    remove: <T>(path: string, body?: unknown) => call<T>('DELETE', path, body),
  }
}

function problemOf(error: unknown): ApiProblem {
  const parsed = ProblemDetails.safeParse((error as { data?: unknown }).data)
  return new ApiProblem(parsed.success ? parsed.data : UNREACHED)
}
