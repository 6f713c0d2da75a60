import type { Day } from '../activities'

/** A version of a page: its whole text in Markdown, or what was changed in the one before; or an earlier one brought back. */
export type DemoVersion = {
  readonly by: string
  readonly at: Day
  readonly says: string
  readonly actsOn?: readonly string[]
} & (
  | { readonly text: string }
  | { readonly edits: ReadonlyArray<readonly [from: string, to: string]> }
  | { readonly restores: number }
)
export interface DemoComment {
  readonly id: string
  readonly by: string
  readonly at: Day
  readonly text: string
  readonly on?: string
  readonly answers?: string
}
/** A page of one group's wiki, with everything that was saved and said, in any order. */
export interface DemoPage {
  readonly group: string
  readonly title: string
  readonly under?: string
  readonly claimedBy?: string
  readonly made: readonly [by: string, at: Day]
  readonly versions: readonly DemoVersion[]
  readonly comments?: readonly DemoComment[]
  readonly draft?: {
    readonly by: string
    readonly at: Day
    readonly edits: ReadonlyArray<readonly [from: string, to: string]>
  }
}
