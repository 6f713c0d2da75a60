interface Step {
  readonly criterionId: string
  readonly points: number
}

/**
 * The marker's own points once the steps of a mark were changed by hand: what changed is their own from then on. Steps
 * that came from readers and were left as they are do not become the marker's.
 */
export function ownAfter<S extends Step>(
  own: readonly S[],
  before: readonly Step[],
  after: readonly S[],
): S[] {
  const pointsIn = (steps: readonly Step[], id: string) => steps.find(s => s.criterionId === id)?.points
  const isChanged = (id: string) => pointsIn(before, id) !== pointsIn(after, id)
  return [...own.filter(s => !isChanged(s.criterionId)), ...after.filter(s => isChanged(s.criterionId))]
}
