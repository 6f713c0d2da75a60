import type { HiddenNames } from '~/composables/marking/useHiddenNames'

/** A piece of a line of the record between the ends of citations, with the numbers of those it stands in and of those that end with it. */
export interface RecordPiece {
  readonly text: string
  readonly names: ReturnType<HiddenNames['pieces']>
  readonly numbers: readonly number[]
  readonly ends: readonly number[]
}
