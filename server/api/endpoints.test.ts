import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it, vi } from 'vitest'
import type { EventHandler } from 'h3'
import { endpointOf } from '#server/http/endpointOf'
import { ENDPOINTS } from '#shared/endpoints'

// it exists in a running server only; loading a route asks nothing of it
vi.mock('nitropack/runtime', () => ({ useNitroApp: () => ({}) }))

const FOLDER = import.meta.dirname
const files = readdirSync(FOLDER, { recursive: true, encoding: 'utf8' })
  .filter(f => f.endsWith('.ts') && !f.endsWith('.test.ts'))
  .sort()
const book = Object.values(ENDPOINTS).flatMap(area => Object.entries(area))

/** Method and address a file answers at, by the rules of file-based routing. */
function addressOfFile(file: string) {
  const [, rest, method] = /^(.*)\.(get|post|put|patch|delete)\.ts$/.exec(file)!
  const path = rest!.replace(/(^|\/)index$/, '').replace(/\[(\w+)\]/g, ':$1')
  return `${method!.toUpperCase()} /api/${path}`.replace(/\/$/, '')
}

describe('the endpoint book', () => {
  it('is what every route is made from', async () => {
    const wrong: string[] = []
    for (const file of files) {
      const { default: handler } = (await import(join(FOLDER, file))) as { default: EventHandler }
      const entry = endpointOf(handler)
      const made = entry && `${entry.method} ${entry.path}`
      if (made !== addressOfFile(file)) wrong.push(`${file} is made from ${made ?? 'nothing of the book'}`)
    }
    expect(files.length).toBeGreaterThan(200)
    expect(wrong).toEqual([])
  })

  it('has a route for every entry, and every address once', () => {
    const addresses = book.map(([, e]) => `${e.method} ${e.path}`)
    expect(addresses.sort()).toEqual(files.map(addressOfFile).sort())
  })

  it('names every parameter of an address in the contract of its parameters', () => {
    for (const [name, e] of book) {
      const inPath = [...e.path.matchAll(/:(\w+)/g)].map(m => m[1]!)
      expect([name, ...inPath.sort()]).toEqual([name, ...Object.keys(e.params?.shape ?? {}).sort()])
    }
  })

  it('says of every entry how it answers, once', () => {
    for (const [name, e] of book)
      expect([name, [e.answer, e.file, e.events].filter(Boolean).length]).toEqual([name, 1])
  })

  it('names every entry once', () => {
    const names = book.map(([name]) => name)
    expect(new Set(names).size).toBe(names.length)
  })
})
