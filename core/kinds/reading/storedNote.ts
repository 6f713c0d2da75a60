import type { TextAnchor } from './anchor'
import type { MarginKind, PageArea } from './reading'

/** What a note in a margin is besides its text. */
export interface StoredNote {
  readonly kind: MarginKind
  readonly part: number
  readonly passage: TextAnchor | null // as its author chose it; null: of an area, or of a moment alone
  readonly area: PageArea | null
  readonly time: readonly [number, number] | null // seconds
  readonly tags: readonly string[]
  readonly to: { readonly part: number; readonly passage: TextAnchor } | null // the passage it leads to
  readonly toAt?: { readonly start: number; readonly end: number } | null // where that stands now; null: lost
  /** Where its passage stands in the newest version; null with a passage: lost. */
  readonly at: { readonly start: number; readonly end: number } | null
  readonly how: 'here' | 'elsewhere' | 'nearly' | 'lost' // how it came there
  readonly settled?: { readonly by: string; readonly at: string } | null // a question that has its answer
}
