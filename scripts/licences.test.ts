import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

// Open source licences by their SPDX names, and open licences of fonts and data.
const OPEN = new Set(
  [
    'MIT MIT-0 ISC 0BSD BSD BSD-2-Clause BSD-3-Clause Apache-2.0 BlueOak-1.0.0 Unlicense Zlib Python-2.0 MPL-2.0',
    'OFL-1.1 CC0-1.0 CC-BY-4.0',
  ].flatMap(line => line.split(' ')),
)
/** Packages whose package.json says nothing, with what their licence file is. */
const BY_FILE: Readonly<Record<string, string>> = { 'png-js': 'MIT' }
/** Words of a licence that is open for some people only. */
const NOT_FOR_ALL =
  /dual-licen[cs]e|licen[cs]e options|commercial licen[cs]e|annual revenue|source-available/i

const home = join(import.meta.dirname, '..')
const packageOf = (folder: string) => JSON.parse(readFileSync(join(home, folder, 'package.json'), 'utf8'))

/** Whether everybody may use it by one of its alternatives (OR), all parts of which (AND) are open. */
const isOpen = (expression: string) =>
  expression
    .replace(/[()]/g, '')
    .split(' OR ')
    .some(one => one.split(' AND ').every(part => OPEN.has(part.trim())))

function licenceOf(folder: string): string {
  const { name, license, licenses } = packageOf(folder)
  if (typeof license === 'string') return license
  if (license?.type) return license.type
  if (licenses) return licenses.map((l: { type: string }) => l.type).join(' OR ')
  return BY_FILE[name] ?? `${name} says nothing`
}

describe('every package that Jovrel ships with', () => {
  const { packages } = JSON.parse(readFileSync(join(home, 'package-lock.json'), 'utf8')) as {
    packages: Record<string, { dev?: boolean; devOptional?: boolean }>
  }
  const shipped = Object.keys(packages).filter(
    folder => folder && !packages[folder]!.dev && existsSync(join(home, folder, 'package.json')),
  )

  it('is open source, by what it says of itself', () => {
    expect(shipped.length).toBeGreaterThan(100)
    const refused = shipped.map(f => [f, licenceOf(f)] as const).filter(([, licence]) => !isOpen(licence))
    expect(refused).toEqual([])
  })

  it('is open source for everybody, by the licence files of the packages named in package.json', () => {
    const direct = Object.keys(packageOf('.').dependencies).map(name => join('node_modules', name))
    const refused = direct.filter(folder =>
      readdirSync(join(home, folder))
        .filter(file => /^licen[cs]e/i.test(file))
        .some(file => NOT_FOR_ALL.test(readFileSync(join(home, folder, file), 'utf8'))),
    )
    expect(refused).toEqual([])
  })

  it('would be refused with a licence that is open for some only', () => {
    expect(['SEE LICENSE IN LICENSE', 'UNLICENSED', 'BUSL-1.1', 'MIT AND SSPL-1.0'].filter(isOpen)).toEqual(
      [],
    )
    expect(['MIT', '(BSD-3-Clause OR GPL-2.0)', '(MIT AND Zlib)'].every(isOpen)).toBe(true)
  })
})
