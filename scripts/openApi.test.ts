import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { Validator } from '@seriousme/openapi-schema-validator'
import { describe, expect, it } from 'vitest'
import { ENDPOINTS } from '#shared/endpoints'
import { openApiDocument } from './openApi'

const FILE = join(import.meta.dirname, '../docs/openapi.json')
const document = await openApiDocument()

describe('the OpenAPI document', () => {
  it('stands in docs as the endpoint book makes it: if this fails, run npm run openapi', () => {
    expect(JSON.parse(readFileSync(FILE, 'utf8'))).toEqual(document)
  })

  it('is valid OpenAPI 3.1, by a reader that is not ours', async () => {
    const { valid, errors } = await new Validator().validate(structuredClone(document))
    expect(errors).toBeUndefined()
    expect(valid).toBe(true)
  })

  it('refers to nothing that is not in it', () => {
    const text = JSON.stringify(document)
    const { schemas } = (document as { components: { schemas: Record<string, unknown> } }).components
    const wanted = new Set([...text.matchAll(/#\/components\/schemas\/(\w+)/g)].map(m => m[1]!))
    expect([...wanted].filter(name => !(name in schemas))).toEqual([])
    expect(Object.keys(schemas).filter(name => !wanted.has(name))).toEqual([])
  })

  it('has an operation for every entry of the book, each under its name', () => {
    const paths = Object.values((document as { paths: Record<string, object> }).paths)
    const operations = paths.flatMap(p => Object.values(p) as Array<{ operationId: string }>)
    const names = Object.values(ENDPOINTS).flatMap(area => Object.keys(area))
    expect(operations.map(o => o.operationId).sort()).toEqual(names.sort())
  })
})
