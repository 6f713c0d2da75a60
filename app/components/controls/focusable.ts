/** What a page asks of a field it holds: put the keyboard there, and choose what stands in it. */
export interface Focusable {
  focus(): void
  select(): void
}
