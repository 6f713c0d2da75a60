import { getPerson } from '#server/access/session'
import { route } from '#server/http/route'
import { sessionView } from '#server/services/people/session'
import { SessionAnswer } from '#shared/people/session'

export default route({ answer: SessionAnswer }, async ({ event, db }) => {
  const person = await getPerson(event, db)
  return { session: person && (await sessionView(db, person)) }
})
