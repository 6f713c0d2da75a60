import { defineEventHandler, getRouterParam, setResponseStatus } from 'h3'
import { z } from 'zod'
import { now } from '#server/clock'
import { useDatabase } from '#server/database/connection'
import { sendFile } from '#server/http/fileRoute'
import { feedFile } from '#server/services/contributing/feed'

export default defineEventHandler(async event => {
  const id = z.uuid().safeParse(getRouterParam(event, 'fileId'))
  const file = id.success
    ? await feedFile(useDatabase(), getRouterParam(event, 'secret') ?? '', id.data, now())
    : null
  if (file) return sendFile(event, file)
  setResponseStatus(event, 404)
  return 'There is nothing at this address.'
})
