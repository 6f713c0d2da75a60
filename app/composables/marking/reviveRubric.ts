import type { CriterionDraft, RubricDraft } from '#core/marking/rubric/rubricDraft'

/** As it was kept when a criterion was evidence of one outcome. */
type Earlier = Omit<CriterionDraft, 'outcomes'> & { readonly outcome?: string | null }

/** Brings changes of a rubric that an earlier release kept in the browser into the form of today. */
export function reviveRubric(change: Partial<RubricDraft>): Partial<RubricDraft> {
  if (!change.criteria) return change
  return { ...change, criteria: change.criteria.map(reviveCriterion) }
}

function reviveCriterion(kept: CriterionDraft | Earlier): CriterionDraft {
  if ('outcomes' in kept) return kept
  const { outcome, ...criterion } = kept
  return { ...criterion, outcomes: outcome ? [outcome] : [] }
}
