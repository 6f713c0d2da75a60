import { defineEventHandler, getRouterParam, setResponseStatus } from 'h3'
import { z } from 'zod'
import { now } from '#server/clock'
import { useDatabase } from '#server/database/connection'
import { sendFile } from '#server/http/sendFile'
import { feedFile } from '#server/services/contributing/feed'

export default defineEventHandler(async event => {
  const db = useDatabase()
  const id = z.uuid().safeParse(getRouterParam(event, 'fileId'))
  const file = id.success ? await feedFile(db, getRouterParam(event, 'secret') ?? '', id.data, now()) : null
  if (file) return sendFile(event, db, { stored: file, type: file.type, name: file.name })
  setResponseStatus(event, 404)
  return 'There is nothing at this address.'
})
