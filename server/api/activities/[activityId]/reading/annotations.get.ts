import { requireActivity } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { collectionOf, portableNotes } from '#server/services/contributing/reading/annotations'
import { ActivityParams } from '#shared/contributing/activity'
import { AnnotationsQuery } from '#shared/contributing/reading'

/** The notes one may read, as a Web Annotation collection. */
export default downloadRoute(
  { params: ActivityParams, query: AnnotationsQuery },
  async ({ event, db, params, query, now }) => {
    const actor = await requireActivity(event, db, params.activityId, now)
    const collection = collectionOf(
      actor.activity.id,
      actor.activity.title,
      await portableNotes(db, actor, query.of, now),
    )
    return {
      bytes: Buffer.from(JSON.stringify(collection, null, 1)),
      type: 'application/ld+json; profile="http://www.w3.org/ns/anno.jsonld"',
      name: `${actor.activity.title}.jsonld`,
    }
  },
)
