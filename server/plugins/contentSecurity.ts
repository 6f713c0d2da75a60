import { randomBytes } from 'node:crypto'
import { setResponseHeaders } from 'h3'
import { defineNitroPlugin } from 'nitropack/runtime'
import { isBehindTls } from '#server/http/client'

const HSTS_SECONDS = 365 * 86_400

/**
 * A strict content security policy: scripts and style sheets run with this answer's nonce only, nothing is loaded from
 * elsewhere, nobody frames us. Style attributes stay allowed: the layout of bars and ribbons is set by them.
 */
export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:html', (html, { event }) => {
    const nonce = randomBytes(16).toString('base64')
    const stamp = (part: string) =>
      part.replace(/<(script|style|link)\b(?![^>]*\bnonce=)/g, `<$1 nonce="${nonce}"`)
    for (const part of ['head', 'bodyPrepend', 'body', 'bodyAppend'] as const) {
      if (part !== 'body') html[part] = html[part].map(stamp)
    }
    html.head.push(`<meta name="style-nonce" content="${nonce}">`)
    setResponseHeaders(event, {
      'content-security-policy': [
        "default-src 'self'",
        "object-src 'none'",
        `script-src 'self' 'nonce-${nonce}'`,
        // while one develops, styles are put into the page by its scripts, which have no nonce
        import.meta.dev ? "style-src 'self' 'unsafe-inline'" : `style-src 'self' 'nonce-${nonce}'`,
        "style-src-attr 'unsafe-inline'",
        "img-src 'self' data: blob:",
        "media-src 'self' blob:",
        "font-src 'self'",
        "connect-src 'self'",
        ...(import.meta.dev ? ["worker-src 'self' blob:"] : []),
        "frame-src 'self'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
      ].join('; '),
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'same-origin',
      'permissions-policy': 'camera=(), geolocation=(), microphone=(self)',
      'cache-control': 'private, no-store',
    })
  })
  nitro.hooks.hook('render:response', response => {
    delete response.headers?.['x-powered-by']
  })
  nitro.hooks.hook('request', event => {
    setResponseHeaders(event, {
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'same-origin',
      ...(isBehindTls(event) && { 'strict-transport-security': `max-age=${HSTS_SECONDS}` }),
    })
  })
})
