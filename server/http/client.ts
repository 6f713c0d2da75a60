import { getRequestHeader, type H3Event } from 'h3'
import proxyAddr from 'proxy-addr'

/**
 * Whom to believe about a request. What a proxy forwards (`x-forwarded-for`, `x-forwarded-proto`) counts only when the
 * connection comes from one of `JOVREL_TRUSTED_PROXIES`: addresses or networks like `10.0.0.0/8`, with commas between.
 */
const trusted = proxyAddr.compile(
  (process.env.JOVREL_TRUSTED_PROXIES ?? '').split(/[\s,]+/).filter(part => part !== ''),
)

/** The address from which somebody asks; a connection by a socket of this machine has none. */
export const clientAddress = (event: H3Event): string => proxyAddr(event.node.req, trusted) || 'this machine'

/** Whether the browser's connection is encrypted, here or at a trusted proxy. */
export function isBehindTls(event: H3Event): boolean {
  const { socket } = event.node.req
  if ('encrypted' in socket) return true
  if (configuredOrigin()?.startsWith('https:')) return true
  const forwarded = (getRequestHeader(event, 'x-forwarded-proto') ?? '').split(',')[0]!.trim()
  return forwarded === 'https' && trusted(socket.remoteAddress ?? '', 0)
}

/** Whether a write comes from our own pages: from the configured address, or, without one, from where it was sent. */
export function isOwnOrigin(event: H3Event, origin: string | undefined): boolean {
  const own = configuredOrigin() ?? `http://${getRequestHeader(event, 'host') ?? ''}`
  return origin !== undefined && (origin === own || byLoopback(origin) === byLoopback(own))
}

/** The names of this machine for itself are one: whoever opens `localhost` is where `127.0.0.1` is. */
const byLoopback = (origin: string): string =>
  origin.replace(/^(https?:\/\/)(?:localhost|127\.0\.0\.1|\[::1\])(?=:|$)/, '$1loopback')

function configuredOrigin(): string | null {
  const address = process.env.JOVREL_ADDRESS
  return address ? new URL(address).origin : null
}
