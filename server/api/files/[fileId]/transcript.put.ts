import { nothingHere } from '#server/access/seminar'
import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { requireTranscriber } from '#server/services/contributing/fileAccess'
import { keepTranscript } from '#server/services/files'
import { storedFile } from '#server/services/files/storedBytes'
import * as filesEndpoints from '#shared/files/endpoints'

export default route(filesEndpoints.keepFileTranscript, async ({ event, db, params, body, now }) => {
  await requirePerson(event)
  const file = await storedFile(db, params.fileId)
  if (!file) throw nothingHere()
  await requireTranscriber(event, db, file, now)
  return keepTranscript(db, file, body.transcript)
})
