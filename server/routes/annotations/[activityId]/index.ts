import { getQuery, setResponseHeaders, setResponseStatus } from 'h3'
import { readLimited } from '#server/http/body'
import { requireWellFormed } from '#server/http/json'
import { annotationRoute, ANNOTATION_TYPE } from '#server/http/annotationRoute'
import {
  containerOf,
  containerPage,
  portableNote,
  portableNotes,
  takeAnnotations,
} from '#server/kinds/reading/annotations'
import { toAnnotation } from '#core/kinds/reading/webAnnotation'
import { Problem } from '#server/http/problem'
import { v7 } from 'uuid'

const LARGEST = 200_000 // bytes

/** The annotation container of a reading (Web Annotation Protocol): its notes as the token's owner gets them; a POST adds one of theirs. */
export default annotationRoute(['GET', 'HEAD', 'OPTIONS', 'POST'], async (event, { db, actor, now }) => {
  const { activity } = actor
  if (event.method === 'POST') {
    const body = await readLimited(
      event,
      LARGEST,
      () => new Problem(413, 'tooLarge', 'This annotation is too long.'),
    )
    const json = body.toString()
    requireWellFormed(json)
    const before = new Set((await portableNotes(db, actor, 'mine', now)).map(n => n.id))
    const { refused } = await takeAnnotations(db, actor, { key: v7(), json, trial: false }, now)
    if (refused[0]) throw new Problem(422, 'refused', `This annotation was not taken: ${refused[0].why}.`)
    const made = (await portableNotes(db, actor, 'mine', now)).find(n => !before.has(n.id))
    if (!made) throw new Problem(202, 'waiting', 'It is handed in and shown once it is approved.')
    setResponseStatus(event, 201)
    setResponseHeaders(event, { 'content-type': ANNOTATION_TYPE, location: made.id })
    return toAnnotation(
      (await portableNote(db, actor, made.id.slice(containerOf(activity.id).length), now)) ?? made,
    )
  }
  const query = Number(getQuery(event).page ?? Number.NaN)
  const notes = await portableNotes(db, actor, 'all', now)
  const page = containerPage(
    activity.id,
    activity.title,
    notes,
    Number.isInteger(query) && query >= 0 ? query : null,
  )
  if (!page) throw new Problem(404, 'noPage', 'There is no such page of this container.')
  setResponseHeaders(event, {
    'content-type': ANNOTATION_TYPE,
    'content-location': `${containerOf(activity.id)}${Number.isInteger(query) ? `?page=${query}` : ''}`,
    'accept-post': ANNOTATION_TYPE,
    link: '<http://www.w3.org/ns/ldp#BasicContainer>; rel="type", <http://www.w3.org/TR/annotation-protocol/>; rel="http://www.w3.org/ns/ldp#constrainedBy"',
  })
  return page
})
