import { isIP } from 'node:net'
import { getRequestHeader, type H3Event } from 'h3'
import { isOwnOrigin } from './client'
import { Problem } from './problem'

/** Where a passkey is made or shown. It works at that host alone. */
export interface PasskeySite {
  readonly origin: string
  readonly host: string
}

/** @throws {Problem} 409 where Jovrel is opened by a number: browsers keep passkeys for names alone */
export function passkeySite(event: H3Event): PasskeySite {
  const origin = getRequestHeader(event, 'origin')
  if (!origin || !isOwnOrigin(event, origin))
    throw new Problem(403, 'otherOrigin', 'Open Jovrel at its own address, then try again.')
  const host = new URL(origin).hostname
  if (isIP(host.replace(/^\[|\]$/g, '')) !== 0)
    throw new Problem(
      409,
      'noName',
      `Browsers keep passkeys for addresses with a name only, and Jovrel is opened as ${host} here.`,
    )
  return { origin, host }
}
