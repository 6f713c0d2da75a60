import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeInTerms } from '#server/services/contributing/lexicon/takeIn'
import { ActivityParams } from '#shared/contributing/activity'
import { LexiconImport, LexiconImported } from '#shared/contributing/lexicon'

export default route(
  { params: ActivityParams, body: LexiconImport, largest: 3_000_000, answer: LexiconImported },
  async ({ event, db, params, body, now }) =>
    takeInTerms(db, await requireMarker(event, db, params.activityId, now), body, now),
)
