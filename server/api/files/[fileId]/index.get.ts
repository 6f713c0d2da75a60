import { requireMember } from '#server/access/seminar'
import { fileRoute } from '#server/http/fileRoute'

export default fileRoute(async (event, db, file) => {
  await requireMember(event, db, file.seminarId)
  return { bytes: file.bytes, type: file.type, name: file.name }
})
