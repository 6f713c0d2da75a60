import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { keepFile } from '#server/services/files/files'
import { FileView, FileWrite } from '#shared/files/file'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: FileWrite, largest: 28_000_000, answer: FileView },
  async ({ event, db, params, body }) => keepFile(db, await requireStaff(event, db, params.seminarId), body),
)
