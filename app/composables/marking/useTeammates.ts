import { shareOfGroup } from '#core/marking/peers/ownShare'
import { doesCount } from '#core/marking/peers/fromReviews'
import type { PeerAllocation, PeersView } from '#shared/marking/peers'

/** One member of a group: what teammates gave, and what their share would make of the group's mark. */
export interface TeammateRow {
  readonly id: string
  readonly means: ReadonlyMap<string, number> // by criterion, hundredths
  readonly mean: number | null // of whole scores
  readonly self: number | null // what they gave themselves; never counted
  readonly factor: number | null // hundredths
  readonly mark: { readonly points: number | null; readonly factor: number | null } | null // of the group's mark
  readonly after: number | null // the mark with this share
  readonly received: readonly PeerAllocation[] // from others first, set aside among them; their own last
}
export interface TeammateGroupRow {
  readonly id: string
  readonly title: string
  readonly owed: number
  readonly members: readonly TeammateRow[]
}

/** Groups with what their members gave each other. Reviews set aside leave every figure. */
export function teammateGroups(
  view: PeersView,
  typed: ReadonlyMap<string, number | null>, // shares set by hand, hundredths
): TeammateGroupRow[] {
  const criteria = view.rubric?.criteria ?? []
  const whole = (points: PeerAllocation['points']) =>
    criteria.every(c => points[c.id] !== undefined)
      ? criteria.reduce((sum, c) => sum + points[c.id]! * c.weight, 0)
      : null
  return view.groups.map(group => {
    const within = view.allocations.filter(a => a.state === 'in' && group.memberIds.includes(a.subjectId))
    const isOfOneself = (a: PeerAllocation) => a.reviewerId === a.subjectId
    const scores = within
      .filter(a => doesCount(a) || (isOfOneself(a) && a.setAside === null))
      .flatMap(a => {
        const points = whole(a.points)
        return points === null ? [] : [{ reviewerId: a.reviewerId, memberId: a.subjectId, points }]
      })
    return {
      id: group.id,
      title: group.title,
      owed: view.allocations.filter(a => group.memberIds.includes(a.reviewerId) && a.state !== 'in').length,
      members: shareOfGroup(group.memberIds, scores, view.settings.bounds).map(share => {
        const { memberId: id } = share
        const received = within.filter(a => a.subjectId === id)
        const proposed = share.factor === null ? null : Math.round(share.factor * 100)
        const factor = typed.has(id) ? typed.get(id)! : proposed
        const mark = view.shares?.marks.find(m => m.enrolmentId === id) ?? null
        return {
          id,
          means: meansOf(received.filter(doesCount), criteria),
          ...{ mean: share.mean, self: share.self, factor, mark },
          after: afterShare(view, mark, factor),
          received: [...received].sort((a, b) => Number(isOfOneself(a)) - Number(isOfOneself(b))),
        }
      }),
    }
  })
}

function meansOf(
  reviews: readonly PeerAllocation[],
  criteria: ReadonlyArray<{ readonly id: string }>,
): ReadonlyMap<string, number> {
  return new Map(
    criteria.flatMap(({ id }) => {
      const given = reviews.flatMap(a => a.points[id] ?? [])
      return given.length === 0 ? [] : [[id, given.reduce((a, b) => a + b, 0) / given.length] as const]
    }),
  )
}

function afterShare(
  view: PeersView,
  mark: NonNullable<PeersView['shares']>['marks'][number] | null,
  factor: number | null,
): number | null {
  if (!mark?.pointsAt) return null
  if (factor === null) return mark.factor === null ? mark.points : null
  return mark.pointsAt[factor - Math.round(view.settings.bounds.least * 100)] ?? null
}
