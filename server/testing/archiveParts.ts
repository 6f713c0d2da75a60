import { createHash } from 'node:crypto'
import { strFromU8, strToU8, zipSync } from 'fflate'

export const sha = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
/** The parts of an archive, unpacked, by their names. */
export type Parts = Record<string, Uint8Array>
/** An archive with some parts changed, its sums made to fit again unless it is to be caught by them. */
export function changed(parts: Parts, change: (parts: Parts) => void, fit = true): Uint8Array {
  const now = { ...parts }
  change(now)
  if (fit)
    now.SHA256SUMS = strToU8(
      Object.entries(now)
        .filter(([name]) => name !== 'SHA256SUMS')
        .map(([name, bytes]) => `${sha(bytes)}  ${name}\n`)
        .join(''),
    )
  return zipSync(now, { level: 1 })
}
export const linesOf = (parts: Parts, table: string) => {
  const file = Object.keys(parts).find(n => /^tables\/\d+_(.+)\.jsonl$/.exec(n)?.[1] === table)!
  return {
    file,
    rows: strFromU8(parts[file]!)
      .split('\n')
      .filter(Boolean)
      .map(l => JSON.parse(l) as Record<string, unknown>),
  }
}
export function setRows(parts: Parts, table: string, change: (rows: Array<Record<string, unknown>>) => void) {
  const { file, rows } = linesOf(parts, table)
  change(rows)
  parts[file] = strToU8(rows.map(r => `${JSON.stringify(r)}\n`).join(''))
}
/** Takes a table out of an archive, as if it had been made before there was one. */
export function unlist(parts: Parts, table: string) {
  Reflect.deleteProperty(parts, linesOf(parts, table).file)
  const manifest = JSON.parse(strFromU8(parts['manifest.json']!)) as { tables: Array<{ name: string }> }
  const tables = manifest.tables.filter(t => t.name !== table)
  parts['manifest.json'] = strToU8(JSON.stringify({ ...manifest, tables }))
}
