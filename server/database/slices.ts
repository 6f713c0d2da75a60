const ROWS = 500 // of some ten columns: a statement of PostgreSQL takes 65,535 values at most

/** The rows in lists that one statement can take, or of so many. */
export function slicesOf<Row>(rows: readonly Row[], most = ROWS): Row[][] {
  return Array.from({ length: Math.ceil(rows.length / most) }, (_, i) => rows.slice(i * most, (i + 1) * most))
}
