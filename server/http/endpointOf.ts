import type { EventHandler } from 'h3'
import type { Endpoint } from '#shared/http/endpoint'

const entries = new WeakMap<EventHandler, Endpoint>()

/** Notes from which entry of the endpoint book a handler was made; a test compares it with the file it lies in. */
export function madeFrom<H extends EventHandler>(endpoint: Endpoint, handler: H): H {
  entries.set(handler, endpoint)
  return handler
}

export const endpointOf = (handler: EventHandler): Endpoint | undefined => entries.get(handler)
