import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, normalize } from 'node:path'
import ts from 'typescript'
import { describe, expect, it } from 'vitest'

const ROOT = join(import.meta.dirname, '..')
const FOLDERS: Readonly<Record<string, string>> = {
  '#core': 'core',
  '#shared': 'shared',
  '#server': 'server',
  '~': 'app',
}

/** Files that a file imports, types included, as paths from the root. */
function importsOf(file: string, files: ReadonlySet<string>): string[] {
  const { importedFiles } = ts.preProcessFile(readFileSync(join(ROOT, file), 'utf8'))
  return importedFiles.flatMap(({ fileName }) => {
    const [head = ''] = fileName.split('/')
    const folder = FOLDERS[head]
    if (!folder && !fileName.startsWith('.')) return []
    const path = folder ? folder + fileName.slice(head.length) : normalize(join(dirname(file), fileName))
    return [path, `${path}.ts`, `${path}/index.ts`].filter(p => files.has(p)).slice(0, 1)
  })
}

/** The first way round that is found, as a line of files. */
function loopIn(graph: ReadonlyMap<string, readonly string[]>): string | null {
  const done = new Set<string>()
  const way: string[] = []
  const walk = (at: string): string | null => {
    if (way.includes(at)) return [...way.slice(way.indexOf(at)), at].join(' → ')
    if (done.has(at)) return null
    way.push(at)
    for (const next of graph.get(at) ?? []) {
      const loop = walk(next)
      if (loop) return loop
    }
    way.pop()
    done.add(at)
    return null
  }
  for (const file of graph.keys()) {
    const loop = walk(file)
    if (loop) return loop
  }
  return null
}

describe('imports', () => {
  it('are found, with types and through aliases', () => {
    const files = new Set(['core/planning/dueTimes.ts', 'core/planning/schedule.ts'])
    expect(importsOf('core/planning/dueTimes.ts', files)).toContain('core/planning/schedule.ts')
    expect(
      loopIn(
        new Map([
          ['a', ['b']],
          ['b', ['c']],
          ['c', ['b']],
        ]),
      ),
    ).toBe('b → c → b')
  })

  it.each(['core', 'shared', 'server', 'app'])('of %s go round in no loop', folder => {
    const files = new Set(
      readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
        .filter(f => f.endsWith('.ts') && !f.endsWith('.test.ts'))
        .map(f => `${folder}/${f}`),
    )
    expect(files.size).toBeGreaterThan(40)
    expect(loopIn(new Map([...files].map(f => [f, importsOf(f, files)])))).toBeNull()
  })
})
