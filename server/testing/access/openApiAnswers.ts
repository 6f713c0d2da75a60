import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import addFormats from 'ajv-formats'
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js'
import type { Endpoint } from '#shared/http/endpoint'

const FILE = join(import.meta.dirname, '../../../docs/openapi.json')
const ajv = new Ajv2020({ strict: false })
addFormats.default(ajv)
ajv.addSchema({ $id: 'jovrel', ...JSON.parse(readFileSync(FILE, 'utf8')) })
const escaped = (part: string) => encodeURIComponent(part.replaceAll('~', '~0').replaceAll('/', '~1'))

const validators = new Map<Endpoint, ValidateFunction>()

/** What is wrong with an answer by the OpenAPI document, as a validator that is not ours reads it; null where nothing is. */
export function unlikeDocument(endpoint: Endpoint, answer: unknown): string | null {
  const validate = validators.get(endpoint) ?? compile(endpoint)
  validators.set(endpoint, validate)
  return validate(answer) ? null : ajv.errorsText(validate.errors)
}

function compile({ path, method }: Endpoint): ValidateFunction {
  const pointer = ['paths', path.replace(/:(\w+)/g, '{$1}'), method.toLowerCase()]
    .concat(['responses', '200', 'content', 'application/json', 'schema'])
    .map(escaped)
    .join('/')
  return ajv.compile({ $ref: `jovrel#/${pointer}` })
}
