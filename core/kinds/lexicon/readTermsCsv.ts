import { readTable } from '#core/people/roster/readTable'
import type { TermDetail } from './lexiconSettings'

export const TERM_COLUMNS = [
  'term',
  'definition',
  'other forms',
  'category',
  'sources',
  'found in longer words',
] as const
type Column = (typeof TERM_COLUMNS)[number]

export interface ReadTerm extends TermDetail {
  readonly line: number
  readonly definition: string
}
export type TermFault =
  | { readonly code: 'noHeader' }
  | { readonly code: 'row'; readonly line: number }
  | { readonly code: 'noTerm' | 'noDefinition'; readonly line: number; readonly term: string }

/**
 * Terms from a table with a header row (RFC 4180; other separators are taken as well): columns by their names, in any
 * order, of which `term` and `definition` are needed. Other forms are separated by bars. Rows that lack something are
 * named with their line; the others are read.
 */
export function readTermsCsv(text: string): {
  readonly terms: readonly ReadTerm[]
  readonly faults: readonly TermFault[]
} {
  const { header, rows, faults } = readTable(text)
  const at = new Map(
    TERM_COLUMNS.map(name => [name, header.findIndex(h => h.trim().toLowerCase() === name)] as const),
  )
  if (at.get('term')! < 0 || at.get('definition')! < 0) return { terms: [], faults: [{ code: 'noHeader' }] }
  const found: TermFault[] = faults.map(f => ({ code: 'row', line: f.line }))
  const terms = rows.flatMap(({ line, cells }) => {
    // an apostrophe that keeps a spreadsheet from calculating is not part of the text
    const cell = (column: Column) => (cells[at.get(column)!] ?? '').trim().replace(/^'(?=[=+\-@|])/, '')
    const [term, definition] = [cell('term'), cell('definition')]
    if (term === '') {
      found.push({ code: 'noTerm', line, term })
      return []
    }
    if (definition === '') {
      found.push({ code: 'noDefinition', line, term })
      return []
    }
    return [
      {
        line,
        term,
        definition,
        forms: cell('other forms')
          .split('|')
          .map(f => f.trim())
          .filter(Boolean),
        category: cell('category') || null,
        sources: cell('sources'),
        whole: !/^(yes|true|1|x)$/i.test(cell('found in longer words')),
      },
    ]
  })
  return { terms, faults: found }
}
