import { requireMember } from '#server/access/seminar'
import { fileRoute } from '#server/http/fileRoute'

export default fileRoute(async (event, db, file) => {
  await requireMember(event, db, file.seminarId)
  return { bytes: Buffer.from(file.transcript ?? 'WEBVTT\n'), type: 'text/vtt; charset=utf-8', name: 'transcript.vtt' }
})
