import { readingOf } from '#core/kinds/reading/reading'
import { writeWebVtt } from '#core/files/webVtt'
import { nothingHere, requireActivity } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { currentVersion } from '#server/kinds/reading/library'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

/** The transcript of a recording that is read, as WebVTT. */
export default downloadRoute(readingEndpoints.downloadTranscript, async ({ event, db, params, now }) => {
  const { activity } = await requireActivity(event, db, params.activityId, now)
  const { textId } = readingOf(activity.settings)
  const current = textId ? await currentVersion(db, textId) : null
  if (current?.text.form !== 'recording') throw nothingHere()
  return {
    bytes: Buffer.from(writeWebVtt(current.version.cues)),
    type: 'text/vtt; charset=utf-8',
    name: `${current.text.title}.vtt`,
  }
})
