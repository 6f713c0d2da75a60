export interface ShareBounds {
  readonly least: number
  readonly most: number
} // factors, e.g. 0.8 and 1.1
export interface TeammateScore {
  readonly reviewerId: string
  readonly memberId: string
  readonly points: number
} // whole score of one member by one teammate

export interface MemberShare {
  readonly memberId: string
  readonly mean: number | null // of what teammates gave; null while nobody has
  readonly self: number | null // what the member gave themselves; shown beside, never counted
  readonly factor: number | null // own mean over the group's, bounded, to two places; null while unknown
}

/**
 * Each member's share of a group's mark: the mean of what teammates gave over the mean of these means, bounded, rounded
 * half up to hundredths. Scores of oneself are left out. Where everyone has 0, nobody did more than another: factor 1.
 *
 * @param scores of one group, shape [n]; a member who was not scored has no share yet and does not enter the group's mean
 * @throws {RangeError} unless 0 ≤ least ≤ 1 ≤ most
 */
export function shareOfGroup(
  memberIds: readonly string[],
  scores: readonly TeammateScore[],
  bounds: ShareBounds,
): MemberShare[] {
  if (!(bounds.least >= 0 && bounds.least <= 1 && bounds.most >= 1))
    throw new RangeError('shareOfGroup: the bounds must stand on either side of 1')
  const members = memberIds.map(memberId => {
    const own = scores.filter(s => s.memberId === memberId)
    const given = own.filter(s => s.reviewerId !== memberId).map(s => s.points)
    return {
      memberId,
      mean: given.length > 0 ? given.reduce((a, b) => a + b, 0) / given.length : null,
      self: own.find(s => s.reviewerId === memberId)?.points ?? null,
    }
  })
  const means = members.flatMap(m => m.mean ?? [])
  const group = means.length > 0 ? means.reduce((a, b) => a + b, 0) / means.length : 0
  return members.map(m => ({
    ...m,
    factor:
      m.mean === null
        ? null
        : Math.min(bounds.most, Math.max(bounds.least, hundredths(group > 0 ? m.mean / group : 1))),
  }))
}

const hundredths = (x: number): number => Math.floor(x * 100 + 0.5 + 1e-9) / 100
