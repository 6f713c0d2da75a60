import { defineEventHandler, getRouterParam, setResponseHeaders, setResponseStatus } from 'h3'
import { now } from '#server/clock'
import { useDatabase } from '#server/database/connection'
import { atomFeed } from '#server/services/contributing/feed'

/** A private feed: whoever has the address reads it, nobody is signed in by it. */
export default defineEventHandler(async event => {
  const feed = await atomFeed(
    useDatabase(),
    (getRouterParam(event, 'secret') ?? '').replace(/\.atom$/, ''),
    now(),
  )
  setResponseHeaders(event, {
    'cache-control': 'private, max-age=60',
    'content-type': feed ? 'application/atom+xml; charset=utf-8' : 'text/plain; charset=utf-8',
    'x-robots-tag': 'noindex',
  })
  if (feed) return feed
  setResponseStatus(event, 404)
  return 'This feed address opens nothing. Make a new one in Jovrel, beside the talk.'
})
