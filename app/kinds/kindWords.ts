/** How people are told of a kind of activity. Its colour is `--k-<kind>` in `app/theme/tokens.css`. */
export interface KindWords {
  readonly name: string
  readonly note: string // what is done in it, for those who choose one
  readonly together: string // after a number of students: how these take part in it
  readonly inGroups?: string // the same where it is for groups, if they are always by themselves
}
