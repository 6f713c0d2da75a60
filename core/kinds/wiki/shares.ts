/** One version, as far as it counts. */
export interface CountedVersion {
  readonly id: string
  readonly authorId: string
  readonly written: number
}
/** A page as it stands: whose words, by version. */
export interface CountedPage {
  readonly claimedBy: string | null
  readonly versions: readonly CountedVersion[]
  readonly standing: ReadonlyMap<string, number>
}
/** A comment: on what, by whom, and whether a version acted upon it. */
export interface CountedComment {
  readonly authorId: string
  readonly claimedBy: string | null
  readonly writers: readonly string[]
  readonly actedOn: boolean
}

/** One member's part in a wiki. */
export interface MemberShare {
  readonly memberId: string
  readonly written: number // words
  readonly standing: number // of all words that stand
  readonly edits: number // versions saved
  readonly made: number // comments
  readonly received: number // comments of others on a page the member claimed, or on words the member wrote
  readonly actedOn: number // of those received: resolved with a version, whoever saved it
}

/**
 * What each member put into a wiki and what stands of it. `authorOf` says whose a version is that is not among the pages
 * (words pasted from a page that is gone).
 */
export function shares(
  members: readonly string[],
  pages: readonly CountedPage[],
  comments: readonly CountedComment[],
  authorOf: ReadonlyMap<string, string>,
): MemberShare[] {
  const author = new Map([
    ...authorOf,
    ...pages.flatMap(p => p.versions.map(v => [v.id, v.authorId] as const)),
  ])
  const versions = pages.flatMap(p => p.versions)
  return members.map(memberId => {
    const received = comments.filter(
      c => c.authorId !== memberId && (c.claimedBy === memberId || c.writers.includes(memberId)),
    )
    const own = versions.filter(v => v.authorId === memberId)
    return {
      memberId,
      written: own.reduce((sum, v) => sum + v.written, 0),
      standing: pages.reduce(
        (sum, p) =>
          sum + [...p.standing].reduce((s, [id, words]) => (author.get(id) === memberId ? s + words : s), 0),
        0,
      ),
      edits: own.length,
      made: comments.filter(c => c.authorId === memberId).length,
      received: received.length,
      actedOn: received.filter(c => c.actedOn).length,
    }
  })
}
