import { requirePerson } from '#server/access/session'
import { notYours } from '#server/access/seminar'
import { now } from '#server/clock'
import { uploadRoute } from '#server/http/uploadRoute'
import { readArchive } from '#server/services/keeping/readArchive'
import * as keepingEndpoints from '#shared/keeping/endpoints'

export default uploadRoute(
  keepingEndpoints.restoreArchive,
  async ({ event }) => {
    if (!(await requirePerson(event)).foundsSeminars)
      throw notYours('Seminars are imported by those who may set up new ones.')
  },
  async ({ event, db, path }) => readArchive(db, path, { personId: (await requirePerson(event)).id }, now()),
)
