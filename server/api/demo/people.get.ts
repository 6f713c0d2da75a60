import { route } from '#server/http/route'
import { demoPeople, isDemo } from '#server/services/people/session'
import { DemoPeople } from '#shared/people/session'

export default route({ answer: DemoPeople }, async ({ db }) => ({
  people: isDemo() ? await demoPeople(db) : [],
}))
