/** A block of a page, and where it stands: its containers from the outside in, and how many it shares with the block before. */
export interface PlacedBlock {
  readonly path: readonly string[]
  readonly join: number
}
export interface TableCell<T> {
  readonly isHeader: boolean
  readonly blocks: readonly T[]
}
export type PagePart<T> =
  | { readonly kind: 'block'; readonly block: T }
  | { readonly kind: 'table'; readonly rows: ReadonlyArray<ReadonlyArray<TableCell<T>>> }

/** Blocks of a page in their order, those of a table put into its rows and cells again. */
export function tablesIn<T extends PlacedBlock>(blocks: readonly T[]): ReadonlyArray<PagePart<T>> {
  const parts: Array<PagePart<T>> = []
  let rows: Array<Array<TableCell<T> & { blocks: T[] }>> = []
  for (const block of blocks) {
    const depth = block.path.indexOf('table') // of the outermost one; what stands in a cell stays in it
    if (depth < 0 || block.path.length < depth + WITHIN_CELL) {
      parts.push({ kind: 'block', block })
      rows = []
      continue
    }
    if (block.join <= depth || rows.length === 0) {
      rows = []
      parts.push({ kind: 'table', rows })
    }
    if (block.join <= depth + 1 || rows.length === 0) rows.push([])
    const row = rows.at(-1)!
    if (block.join <= depth + 2 || row.length === 0)
      row.push({ isHeader: block.path[depth + 2] === 'tableHeader', blocks: [] })
    row.at(-1)!.blocks.push(block)
  }
  return parts
}

const WITHIN_CELL = 3 // table, row, cell
