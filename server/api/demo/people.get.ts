import { route } from '#server/http/route'
import { demoPeople, isDemo } from '#server/services/people/session'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readDemoPeople, async ({ db }) => ({
  people: isDemo() ? await demoPeople(db) : [],
}))
