import { route } from '#server/http/route'
import { personOfLink } from '#server/services/people/account'
import { PasswordLinkView, SecretParams } from '#shared/people/account'

export default route({ params: SecretParams, answer: PasswordLinkView }, ({ db, params }) =>
  personOfLink(db, params.secret),
)
