/** What we use of the package, which brings no types of its own. */
declare module 'stopword' {
  export const eng: readonly string[]
  export function removeStopwords(words: readonly string[], lists: readonly string[]): string[]
}
