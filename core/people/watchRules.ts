import type { BrokenRule, GroupRules } from './makeGroups'

/** A rule that groups do not keep as they stand, with those it is about: who should be together and is not, or the other way. */
export interface UnkeptRule extends BrokenRule {
  readonly ids: readonly string[]
}

/**
 * Which rules these groups do not keep. People in no group break none: they are placed when they are.
 *
 * @param groups shape [groups][members], ids distinct; rules may name ids that are in none of them
 * @returns of a set to be kept together all who are in groups; of a set to be kept apart those who meet, one entry for each
 *   group they meet in
 */
export function unkeptRules(
  groups: ReadonlyArray<readonly string[]>,
  { together, apart }: Pick<GroupRules, 'together' | 'apart'>,
): UnkeptRule[] {
  const groupOf = new Map(groups.flatMap((ids, at) => ids.map(id => [id, at] as const)))
  const placed = (set: readonly string[]) => [...new Set(set)].filter(id => groupOf.has(id))
  const scattered = together.flatMap((set, index): UnkeptRule[] => {
    const ids = placed(set)
    const isOne = new Set(ids.map(id => groupOf.get(id))).size <= 1
    return isOne ? [] : [{ kind: 'together', index, ids }]
  })
  const meeting = apart.flatMap((set, index): UnkeptRule[] =>
    groups.flatMap((_, at) => {
      const ids = placed(set).filter(id => groupOf.get(id) === at)
      return ids.length > 1 ? [{ kind: 'apart' as const, index, ids }] : []
    }),
  )
  return [...scattered, ...meeting]
}
