import document from '#docs/openapi.json'
import { route } from '#server/http/route'
import * as httpEndpoints from '#shared/http/endpoints'

export default route(httpEndpoints.readOpenApi, async () => document)
