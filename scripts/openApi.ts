import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { z } from 'zod'
import { ENDPOINTS } from '#shared/endpoints'
import type { Endpoint } from '#shared/http/endpoint'
import { ProblemDetails } from '#shared/http/problem'

type Json = Readonly<Record<string, unknown>>
type Side = 'input' | 'output'
interface Schemas {
  readonly of: (contract: z.ZodType, side: Side) => Json
  readonly used: () => Json
}

const SHARED = join(import.meta.dirname, '../shared')

/** The endpoint book as an OpenAPI 3.1 document; contracts stand in it by the names they have in `shared`. */
export async function openApiDocument(): Promise<Json> {
  const schemas = await schemasByName()
  const paths: Record<string, Record<string, unknown>> = {}
  for (const [area, entries] of Object.entries(ENDPOINTS))
    for (const [name, entry] of Object.entries(entries)) {
      const path = entry.path.replace(/:(\w+)/g, '{$1}')
      paths[path] = { ...paths[path], [entry.method.toLowerCase()]: operation(area, name, entry, schemas) }
    }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Jovrel',
      version: '1',
      license: { name: 'MIT', identifier: 'MIT' },
      description:
        'What the pages of Jovrel call. A session cookie says who asks; each write carries the origin of the page it comes from. What somebody may not know of is answered like what is not there.',
    },
    servers: [{ url: '/' }],
    security: [{ session: [] }],
    tags: Object.keys(ENDPOINTS).map(name => ({ name })),
    paths: sorted(paths),
    components: {
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'jovrel_session' } },
      responses: {
        Problem: {
          description: 'Refused, or failed, with a sentence for the person (RFC 9457)',
          content: { 'application/problem+json': { schema: schemas.of(ProblemDetails, 'output') } },
        },
      },
      schemas: sorted(schemas.used()),
    },
  }
}

function operation(area: string, name: string, entry: Endpoint, schemas: Schemas): Json {
  const body = requestBody(entry, schemas)
  return {
    operationId: name,
    tags: [area],
    summary: entry.summary,
    parameters: [...parametersOf(entry.params, 'path'), ...parametersOf(entry.query, 'query')],
    ...(body && { requestBody: body }),
    responses: {
      200: { description: 'Done', content: answerContent(entry, schemas) },
      default: { $ref: '#/components/responses/Problem' },
    },
  }
}

function requestBody({ body, upload }: Endpoint, schemas: Schemas): Json | null {
  if (upload) return { required: true, content: { [upload]: { schema: {} } } }
  return body
    ? { required: true, content: { 'application/json': { schema: schemas.of(body, 'input') } } }
    : null
}

function answerContent({ answer, file, events, progress }: Endpoint, schemas: Schemas): Json {
  if (events) return { 'text/event-stream': { schema: { type: 'string' } } }
  if (file) return Object.fromEntries(file.map(type => [type, { schema: {} }]))
  const schema = schemas.of(answer!, 'output')
  return {
    'application/json': { schema },
    ...(progress && { 'application/x-ndjson': { schema: { type: 'string' } } }),
  }
}

function parametersOf(contract: z.ZodType | undefined, where: 'path' | 'query'): readonly Json[] {
  if (!contract) return []
  const { properties = {}, required = [] } = z.toJSONSchema(contract, {
    io: 'input',
    unrepresentable: 'any',
    override: withoutPattern,
  })
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: where,
    required: where === 'path' || required.includes(name),
    schema,
  }))
}

/**
 * Contracts by the name under which `shared` exports them. What goes in and what comes out of one can differ (a default, a
 * change of form): where both are used, the former has `Sent` after its name.
 */
async function schemasByName(): Promise<Schemas> {
  const registry = z.registry<{ id: string }>()
  const names = new Set<string>()
  for (const file of readdirSync(SHARED, { recursive: true, encoding: 'utf8' }).sort()) {
    if (!file.endsWith('.ts') || /\.(test|d)\.ts$|ndpoints?\.ts$/.test(file)) continue
    const exported = (await import(join(SHARED, file))) as Record<string, unknown>
    for (const [name, contract] of Object.entries(exported))
      if (contract instanceof z.ZodType && !registry.has(contract)) {
        if (names.has(name)) throw new Error(`two contracts are called ${name}: one needs another name`)
        names.add(name)
        registry.add(contract, { id: name })
      }
  }
  const everything = (io: Side) =>
    z.toJSONSchema(registry, {
      io,
      unrepresentable: 'any',
      override: withoutPattern,
      uri: id => `#/components/schemas/${nameOf(id, io)}`,
    }).schemas as Readonly<Record<string, Json>> // by the ids given above
  const nameOf = (id: string, side: Side) => (side === 'input' ? `${id}Sent` : id)
  const known = { input: everything('input'), output: everything('output') }
  const used: Record<string, Json> = {}
  function take(id: string, side: Side) {
    const name = nameOf(id, side)
    if (used[name]) return
    const { $schema: _, $id: __, ...schema } = known[side][id]!
    used[name] = schema
    for (const [, other] of JSON.stringify(schema).matchAll(/"#\/components\/schemas\/(\w+)"/g))
      take(side === 'input' ? other!.replace(/Sent$/, '') : other!, side)
  }
  return {
    of: (contract, side) => {
      const id = registry.get(contract)?.id
      if (!id) throw new Error('a contract of the endpoint book is not exported from shared: it needs a name')
      take(id, side)
      return { $ref: `#/components/schemas/${nameOf(id, side)}` }
    },
    used: () => used,
  }
}

/** A format says what its pattern would say, to people and to readers of the standard. */
function withoutPattern({ jsonSchema }: { readonly jsonSchema: z.core.JSONSchema.BaseSchema }) {
  if (jsonSchema.format) delete jsonSchema.pattern
}

const sorted = (parts: Json): Json =>
  Object.fromEntries(Object.entries(parts).sort(([a], [b]) => (a < b ? -1 : 1)))
