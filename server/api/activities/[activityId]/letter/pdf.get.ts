import { nothingHere, requireActivity } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { returnedLetters } from '#server/services/marking/results/exportResults'
import { lettersPdf } from '#server/services/marking/results/inThread'
import * as markingEndpoints from '#shared/marking/endpoints'

/** A student's own letter as a paper. */
export default downloadRoute(markingEndpoints.downloadLetter, async ({ event, db, params, now }) => {
  const actor = await requireActivity(event, db, params.activityId, now)
  const letters = await returnedLetters(db, actor, params.activityId, actor.enrolment.id)
  if (letters.length === 0) throw nothingHere()
  return {
    name: `${actor.activity.title.replace(/[^\p{L}\p{N}]+/gu, ' ').trim()}.pdf`,
    type: 'application/pdf',
    bytes: await lettersPdf(letters),
  }
})
