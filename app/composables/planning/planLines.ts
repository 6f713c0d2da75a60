/** A sentence below the plan: words, some of them strong or a title, and what can be done about it. */
export interface PlanLine {
  readonly key: string
  readonly words: readonly PlanWord[]
  readonly act: PlanLineAct | null
}
export type PlanWord = string | { readonly strong: string } | { readonly title: string }
export interface PlanLineAct {
  readonly label: string
  /** What a screen reader says, where the label alone says too little. */
  readonly name?: string
  readonly to?: string
  readonly run?: () => void
}
