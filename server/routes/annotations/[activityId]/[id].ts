import { getRouterParam, setResponseHeaders, setResponseStatus } from 'h3'
import { z } from 'zod'
import { toAnnotation } from '#core/kinds/reading/webAnnotation'
import { annotationRoute, ANNOTATION_TYPE } from '#server/http/annotationRoute'
import { Problem } from '#server/http/problem'
import { ownNoteRow, portableNote } from '#server/kinds/reading/annotations'
import { setWithdrawn } from '#server/services/contributing/contributionState'

/** One annotation: read by those who may, withdrawn by its author as anywhere. */
export default annotationRoute(['GET', 'HEAD', 'OPTIONS', 'DELETE'], async (event, { db, actor, now }) => {
  const id = z.uuid().safeParse(getRouterParam(event, 'id'))
  const note = id.success ? await portableNote(db, actor, id.data, now) : null
  if (!id.success || !note) throw new Problem(404, 'nothingHere', 'There is no such annotation.')
  if (event.method === 'DELETE') {
    const contribution = await ownNoteRow(db, actor, id.data)
    if (!contribution) throw new Problem(403, 'notYours', 'Only its author withdraws an annotation.')
    await setWithdrawn(db, { ...actor, contribution }, true, now)
    setResponseStatus(event, 204)
    return null
  }
  setResponseHeaders(event, {
    'content-type': ANNOTATION_TYPE,
    link: '<http://www.w3.org/ns/ldp#Resource>; rel="type"',
  })
  return toAnnotation(note)
})
