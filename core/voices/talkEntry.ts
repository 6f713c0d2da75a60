/** One thing that was said, as voices count it. */
export interface TalkEntry {
  readonly id: string
  readonly authorId: string
  readonly activityId: string
  readonly parentId: string | null // what it answers
  readonly answersId: string | null // who wrote that, also where it lies outside the span that is looked at
  readonly depth: number // 0 for what answers nothing
  readonly answersAt: number | null // when that was shown, milliseconds since 1970
  readonly at: number // when it was shown, milliseconds since 1970
  readonly words: number // quotations left out
  readonly sentences: number
  readonly syllables: number
}
