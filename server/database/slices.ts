const ROWS = 500 // of some ten columns: a statement of PostgreSQL takes 65,535 values at most

/** The rows in lists that one statement can take. */
export function slicesOf<Row>(rows: readonly Row[]): Row[][] {
  return Array.from({ length: Math.ceil(rows.length / ROWS) }, (_, i) => rows.slice(i * ROWS, (i + 1) * ROWS))
}
