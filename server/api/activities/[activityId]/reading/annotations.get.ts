import { requireActivity } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { collectionOf, portableNotes } from '#server/kinds/reading/annotations'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

/** The notes one may read, as a Web Annotation collection. */
export default downloadRoute(
  readingEndpoints.downloadAnnotations,
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
