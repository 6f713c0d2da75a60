// npm run openapi: writes docs/openapi.json from the endpoint book
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { openApiDocument } from './openApi'

const file = join(import.meta.dirname, '../docs/openapi.json')
writeFileSync(file, `${JSON.stringify(await openApiDocument(), null, 2)}\n`)
