import { stringify } from 'csv-stringify/sync'
import { decodeText } from '#core/people/roster/decodeText'
import { readTable } from '#core/people/roster/readTable'
import type { OutcomeDraft } from './caseJson'
import { MOST_OUTCOMES, type CriterionDraft, type LevelDraft, type RubricDraft } from './rubricDraft'

/**
 * A rubric as separated values, one row a criterion: criterion, scope, weight, the identifiers of its learning outcomes (a
 * line each), then for each level its title, its points ("4", or "3-4" for a range) and its descriptor. A cell that a
 * spreadsheet would run begins with an apostrophe.
 */
export function rubricToCsv(rubric: RubricDraft): string {
  const most = Math.max(0, ...rubric.criteria.map(c => c.levels.length))
  const head = [
    'criterion',
    'scope',
    'weight',
    'outcomes',
    ...Array.from({ length: most }, (_, i) => [
      `level ${i + 1}`,
      `points ${i + 1}`,
      `descriptor ${i + 1}`,
    ]).flat(),
  ]
  const rows = rubric.criteria.map(c => [
    c.title,
    c.scope,
    String(c.weight),
    c.outcomes.join('\n'),
    ...c.levels.flatMap(l => [
      l.title,
      l.pointsFrom === null ? String(l.points / 100) : `${l.pointsFrom / 100}-${l.points / 100}`,
      l.descriptor,
    ]),
  ])
  return stringify([head, ...rows.map(row => head.map((_, i) => safe(row[i] ?? '')))])
}

export type CsvRubric =
  | { readonly kind: 'read'; readonly rubric: RubricDraft }
  | {
      readonly kind: 'refused'
      readonly line: number
      readonly code: 'noHeader' | 'badPoints' | 'noTitle' | 'unreadable'
      readonly value: string
    }

/** Reads what `rubricToCsv` writes; the first row that cannot be read is named with its line. */
export function rubricFromCsv(bytes: Uint8Array, title: string): CsvRubric {
  const table = readTable(decodeText(bytes).text)
  const [fault] = table.faults
  if (fault && fault.code !== 'columns')
    return { kind: 'refused', line: fault.line, code: 'unreadable', value: fault.code }
  const column = (name: string) => table.header.findIndex(h => h.toLowerCase() === name)
  if (column('criterion') < 0 || column('points 1') < 0)
    return { kind: 'refused', line: 1, code: 'noHeader', value: table.header.join(', ').slice(0, 80) }
  if (fault) return { kind: 'refused', line: fault.line, code: 'unreadable', value: fault.code }
  const criteria: CriterionDraft[] = []
  for (const { line, cells } of table.rows) {
    const cell = (name: string) => (cells[column(name)] ?? '').replace(/^'(?=[=+@-])/, '')
    const levels: LevelDraft[] = []
    for (let i = 1; column(`points ${i}`) >= 0; i++) {
      const raw = cell(`points ${i}`)
      if (raw === '') continue
      const range = /^(?:(\d+(?:[.,]\d{1,2})?)\s*[-–]\s*)?(\d+(?:[.,]\d{1,2})?)$/.exec(raw)
      if (!range) return { kind: 'refused', line, code: 'badPoints', value: raw.slice(0, 40) }
      const points = (text: string | undefined) =>
        text === undefined ? null : Math.round(Number(text.replace(',', '.')) * 100)
      levels.push({
        title: cell(`level ${i}`),
        points: points(range[2])!,
        pointsFrom: points(range[1]),
        descriptor: cell(`descriptor ${i}`),
      })
    }
    if (cell('criterion') === '') return { kind: 'refused', line, code: 'noTitle', value: '' }
    const weight = Number(cell('weight') || 1)
    criteria.push({
      title: cell('criterion'),
      scope: cell('scope') === 'group' ? 'group' : 'own',
      weight: Number.isInteger(weight) && weight >= 1 && weight <= 100 ? weight : 1,
      suggestFrom: null,
      outcomes: linesOf(cell('outcomes')).slice(0, MOST_OUTCOMES),
      levels,
    })
  }
  return { kind: 'read', rubric: { title, criteria } }
}

/** Learning outcomes as separated values with the columns identifier (or id), code and statement. */
export function outcomesFromCsv(
  bytes: Uint8Array,
): { readonly found: readonly OutcomeDraft[]; readonly badLines: readonly number[] } | null {
  const table = readTable(decodeText(bytes).text)
  const column = (...names: string[]) =>
    table.header.findIndex(h => names.includes(h.toLowerCase().replace(/[^a-z]/g, '')))
  const [id, code, statement] = [
    column('identifier', 'id', 'guid'),
    column('code', 'humancodingscheme'),
    column('statement', 'fullstatement', 'outcome'),
  ]
  if (statement < 0) return null
  const badLines: number[] = table.faults.map(f => f.line)
  const found = table.rows.flatMap(({ line, cells }) => {
    const text = (cells[statement] ?? '').trim()
    if (text === '') {
      badLines.push(line)
      return []
    }
    const short = (cells[code] ?? '').trim()
    return [
      { identifier: (cells[id] ?? '').trim() || short || text.slice(0, 60), code: short, statement: text },
    ]
  })
  return { found, badLines }
}

const linesOf = (cell: string): string[] => [
  ...new Set(
    cell
      .split('\n')
      .map(line => line.trim())
      .filter(line => line !== ''),
  ),
]
const safe = (cell: string): string => (/^[=+@-]/.test(cell) ? `'${cell}` : cell)
