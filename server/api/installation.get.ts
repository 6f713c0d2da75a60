import { route } from '#server/http/route'
import { installation } from '#server/services/people/account'
import { Installation } from '#shared/people/account'

export default route({ answer: Installation }, ({ db }) => installation(db))
