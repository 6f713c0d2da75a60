import { defineEventHandler, getRouterParam, setResponseHeaders, setResponseStatus } from 'h3'
import { now } from '#server/clock'
import { useDatabase } from '#server/database/connection'
import { calendarFeed } from '#server/services/planning/calendar'

/** A private calendar feed: whoever has the address reads it, nobody is signed in by it. */
export default defineEventHandler(async event => {
  const secret = (getRouterParam(event, 'secret') ?? '').replace(/\.ics$/, '')
  const feed = await calendarFeed(useDatabase(), secret, now())
  setResponseHeaders(event, {
    'cache-control': 'private, max-age=300',
    'content-type': feed ? 'text/calendar; charset=utf-8' : 'text/plain; charset=utf-8',
    'x-robots-tag': 'noindex',
  })
  if (feed) return feed
  setResponseStatus(event, 404)
  return 'This calendar address opens nothing. Make a new one in Jovrel under your account.'
})
