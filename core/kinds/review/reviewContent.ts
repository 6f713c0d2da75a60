/** What a reviewer says, part by part; the contribution's text is the same in one. Kept apart from it: what is for the instructor alone. */
export interface ReviewContent {
  readonly points: Readonly<Record<string, number>> // by criterion, hundredths
  readonly remarks: Readonly<Record<string, string>> // by criterion
  readonly answers: Readonly<Record<string, string>> // by question
  readonly passages: ReadonlyArray<{
    readonly exact: string
    readonly prefix: string
    readonly suffix: string
    readonly start: number
    readonly note: string
  }>
  readonly private: string
}
