/* eslint-disable-next-line @typescript-eslint/triple-slash-reference -- the interface sees this file, not the server’s declarations */
/// <reference path="../types/raw.d.ts" />
import text from 'raw:../../docs/openapi.json'
import { route } from '#server/http/route'
import * as httpEndpoints from '#shared/http/endpoints'
import { OpenApiDocument } from '#shared/http/openApi'

export default route(httpEndpoints.readOpenApi, async () =>
  OpenApiDocument.parse(JSON.parse(Buffer.from(text).toString())),
)
