/** A hand-written contribution of the demo seminar. `at` is week, weekday (1 Monday … 7 Sunday) and local time. */
export interface DemoText {
  readonly id: string
  readonly by: string
  readonly at: readonly [week: number, weekday: number, time: string]
  readonly answers?: string
  readonly takesUp?: string // words of the text it answers
  readonly nods?: readonly string[]
  readonly draft?: true
  readonly title?: string // of a blog entry
  readonly prompt?: number // number of the prompt it answers
  readonly file?: string // a picture of demo/files that comes with it
  readonly text: string // lines are paragraphs; what stands between dollar signs is a formula in LaTeX
}
