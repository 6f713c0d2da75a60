import { requireActivity } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { takeOutLexicon } from '#server/services/contributing/lexicon/takeOut'
import { ActivityParams } from '#shared/contributing/activity'
import { LexiconTakeQuery } from '#shared/contributing/lexicon'

/** A lexicon to take along: as a table, as data, or to be read. */
export default downloadRoute(
  { params: ActivityParams, query: LexiconTakeQuery },
  async ({ event, db, params, query, now }) =>
    takeOutLexicon(db, await requireActivity(event, db, params.activityId, now), query.as, now),
)
