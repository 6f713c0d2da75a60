import { parse, CsvError } from 'csv-parse/sync'
import type { RosterFault } from './rosterRow'

export interface TableRow {
  readonly line: number
  readonly cells: readonly string[]
}
export interface Table {
  readonly header: readonly string[]
  readonly rows: readonly TableRow[]
  readonly faults: readonly RosterFault[]
}

const SEPARATORS = [',', ';', '\t', '|']

/**
 * Rows of a text with separated values (RFC 4180; semicolons, tabs and bars are taken as well), each with the line it
 * begins on. A row with too few or too many cells, or with a quote in the wrong place, is a fault with its line; the others are read.
 */
export function readTable(text: string): Table {
  const faults: RosterFault[] = []
  // some spreadsheets write the separator into a first line of its own; the line stays, empty, so that lines keep their numbers
  const told = /^\ufeff?sep=([,;|\t])[ \t]*(?=\r?\n)/i.exec(text)
  const plain = told ? text.slice(told[0].length) : text
  const records = parseRecords(plain, told?.[1] ?? separatorOf(plain), faults)
  const [head, ...body] = records
  if (!head)
    return { header: [], rows: [], faults: faults.length > 0 ? faults : [{ code: 'empty', line: 1 }] }
  const rows = body
    .filter(row => row.cells.some(cell => cell !== ''))
    .filter(row => {
      const extra = row.cells.slice(head.cells.length)
      if (row.cells.length >= head.cells.length && extra.every(cell => cell === '')) return true
      faults.push({ code: 'columns', line: row.line, have: row.cells.length, want: head.cells.length })
      return false
    })
  return { header: head.cells, rows, faults }
}

/** The separator that occurs most often in the first line outside quotes. */
function separatorOf(text: string): string {
  const first =
    text
      .replace(/"(?:[^"]|"")*"/g, '')
      .split(/\r?\n/)
      .find(line => line.trim() !== '') ?? ''
  const count = (s: string) => first.split(s).length
  return SEPARATORS.reduce((best, s) => (count(s) > count(best) ? s : best))
}

function parseRecords(text: string, delimiter: string, faults: RosterFault[]): TableRow[] {
  interface Parsed {
    readonly record: string[]
    readonly raw: string
    readonly info: { readonly lines: number }
  }
  // with `info` and `raw` each record comes with its place, which the types do not know
  const parsed = parse(text, {
    delimiter,
    bom: true,
    info: true,
    raw: true,
    relax_column_count: true,
    trim: true,
    skip_empty_lines: true,
    skip_records_with_error: true,
    on_skip: (error: CsvError | undefined) => {
      if (!error) return undefined
      // the line stands on the error, but not in its type
      const at = Number((error as unknown as { lines?: number }).lines ?? 0)
      if (!faults.some(f => f.line === at))
        faults.push({ code: error.code === 'CSV_QUOTE_NOT_CLOSED' ? 'openQuote' : 'badQuote', line: at })
      return undefined
    },
  }) as unknown as Parsed[]
  return parsed.map(({ record, raw, info }) => ({
    line: info.lines - (raw.trim().match(/\r\n|\r|\n/g)?.length ?? 0),
    cells: record,
  }))
}
