/** A hand-written contribution of the demo seminar. `at` is week, weekday (1 Monday … 7 Sunday) and local time. */
export interface DemoText {
  readonly id: string
  readonly by: string
  readonly at: readonly [week: number, weekday: number, time: string]
  readonly answers?: string
  readonly takesUp?: string // words of the text it answers
  readonly nods?: readonly string[]
  readonly draft?: true
  readonly text: string
}
