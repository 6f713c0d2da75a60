/** A cell of the gradebook; column −1: the final figure, −2: the name. */
export interface CellPosition {
  readonly row: number
  readonly column: number
}
/** What a key asks for in a grid: another cell, or that the cell at hand is changed, beginning with what was typed. */
type Asked =
  | { readonly kind: 'go'; readonly to: CellPosition }
  | { readonly kind: 'edit'; readonly typed: string | null }

const PAGE = 15 // rows

/**
 * What a key does in a grid.
 *
 * @param order the columns as they stand, from left to right
 * @returns null for a key that does nothing here
 */
export function gridKey(key: string, at: CellPosition, order: readonly number[], rows: number): Asked | null {
  const column = order.indexOf(at.column)
  const go = (toRow: number, toColumn: number): Asked => ({
    kind: 'go',
    to: {
      row: Math.min(rows - 1, Math.max(0, toRow)),
      column: order[Math.min(order.length - 1, Math.max(0, toColumn))]!,
    },
  })
  switch (key) {
    case 'ArrowDown':
      return go(at.row + 1, column)
    case 'ArrowUp':
      return go(at.row - 1, column)
    case 'ArrowRight':
      return go(at.row, column + 1)
    case 'ArrowLeft':
      return go(at.row, column - 1)
    case 'PageDown':
      return go(at.row + PAGE, column)
    case 'PageUp':
      return go(at.row - PAGE, column)
    case 'Home':
      return go(at.row, 0)
    case 'End':
      return go(at.row, order.length - 1)
    case 'Enter':
    case 'F2':
      return { kind: 'edit', typed: null }
    default:
      return /^\d$/.test(key) ? { kind: 'edit', typed: key } : null
  }
}
