import { getRouterParams, type H3Event } from 'h3'
import { getPerson } from '#server/access/session'
import { useDatabase } from '#server/database/connection'
import { logError } from '#server/log'
import { writeAccessLog } from '#server/services/people/accessLog'
import type { Endpoint } from '#shared/http/endpoint'
import type { LoggedAct } from '#shared/people/accessLog'
import { clientAddress } from './client'
import { Problem } from './problem'

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i

/** What an entry of the access log is about, where the address of the request does not say it: an address that was tried. */
export function logAbout(event: H3Event, about: string): void {
  event.context.logAbout = about
}

/** Calls what an endpoint did by another name than its own, and says whose it was though nobody is signed in yet. */
export function logAs(event: H3Event, act: LoggedAct, personId: string): void {
  event.context.logAct = act
  event.context.signedIn = personId
}

/** The address of a request with the ids in it. Whatever else stands there may open something: it stays behind its name. */
function withoutSecrets(event: H3Event, { path }: Endpoint): string {
  const params = getRouterParams(event)
  return path.replace(/:(\w+)/g, (named, name: string) =>
    UUID.test(params[name] ?? '') ? params[name]! : named,
  )
}

const SIGN_INS: ReadonlySet<LoggedAct> = new Set(['signIn', 'signInByCode', 'signInByPasskey'])

/**
 * Writes down what an endpoint of the access log did, and for every endpoint that somebody signed in was refused. A log
 * that cannot be written is told of in the error stream and stops nobody.
 *
 * @param failure what went wrong; null if it was done
 */
export async function logAccess(event: H3Event, endpoint: Endpoint, failure: unknown): Promise<void> {
  const status = failure instanceof Problem ? failure.status : 500
  const isRefusal = failure !== null && status === 403
  const isTry = failure !== null && (status === 401 || status === 422 || status === 429)
  const act = endpoint.logged ?? (isRefusal ? 'refused' : null)
  if (!act || (failure !== null && !isRefusal && !isTry)) return
  try {
    const person = await getPerson(event)
    if (failure !== null && !person && !SIGN_INS.has(act)) return
    const seminarId = (event.context.seminarId as string | undefined) ?? getRouterParams(event).seminarId
    await writeAccessLog(useDatabase('access'), {
      act: (event.context.logAct as LoggedAct | undefined) ?? act,
      done: failure === null,
      personId: (event.context.signedIn as string | undefined) ?? person?.id ?? null,
      seminarId: seminarId && UUID.test(seminarId) ? seminarId : null,
      about: String(event.context.logAbout ?? `${endpoint.method} ${withoutSecrets(event, endpoint)}`),
      client: clientAddress(event),
    })
  } catch (error) {
    logError('access log', error)
  }
}
