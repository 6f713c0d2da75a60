import { requirePerson } from '#server/access/session'
import { notYours } from '#server/access/seminar'
import { uploadRoute } from '#server/http/uploadRoute'
import { readArchive } from '#server/services/keeping/readArchive'
import * as keepingEndpoints from '#shared/keeping/endpoints'

export default uploadRoute(
  keepingEndpoints.restoreArchive,
  async ({ event, db }) => {
    if (!(await requirePerson(event, db)).foundsSeminars)
      throw notYours('Seminars are brought back by those who may set up new ones.')
  },
  async ({ db, path }) => readArchive(db, path),
)
