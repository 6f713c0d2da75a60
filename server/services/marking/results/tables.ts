import { stringify } from 'csv-stringify/sync'
import { strToU8, zipSync } from 'fflate'
import writeExcelFile from 'write-excel-file/node'
import { safeCell } from '#core/marking/results/safeCell'

export type Cell = string | number | null
export type Rows = ReadonlyArray<readonly Cell[]>

const safe = (rows: Rows) => rows.map(r => r.map(cell => (typeof cell === 'string' ? safeCell(cell) : cell)))

/** With the mark of the byte order first: spreadsheets take it for UTF-8. */
export const csvOf = (rows: Rows): Uint8Array =>
  strToU8(stringify(safe(rows), { bom: true, record_delimiter: '\r\n' }))

/** Several tables as CSV in one archive. */
export const tablesZip = (tables: Readonly<Record<string, Rows>>, at: Date): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries(tables).map(([name, rows]) => [
        name,
        strToU8(stringify(safe(rows), { record_delimiter: '\r\n' })),
      ]),
    ),
    { mtime: at },
  )

/** Cells are typed: text is never read as a formula. */
export async function workbook(rows: Rows): Promise<Uint8Array> {
  const [head, ...body] = rows
  const data = [
    (head ?? []).map(cell => ({ value: String(cell ?? ''), type: String, fontWeight: 'bold' as const })),
    ...body.map(r =>
      r.map(cell => {
        if (cell === null || cell === '') return null
        if (typeof cell === 'number') return { value: cell, type: Number }
        return { value: cell, type: String }
      }),
    ),
  ]
  // the types know the browser’s result; here it is one that gives a buffer
  const file = writeExcelFile(data, {
    sheet: 'Results',
    stickyRowsCount: 1,
    stickyColumnsCount: 2,
  }) as unknown as { toBuffer: () => Promise<Buffer> } | Promise<Buffer>
  return 'toBuffer' in file ? file.toBuffer() : file
}
