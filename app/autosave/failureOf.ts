import { ApiProblem } from '~/composables/shell/useApi'
import type { SaveFailure, Theirs } from './autosave'

/**
 * What a failed request means for what was typed.
 *
 * @param theirsOf reads what is stored now out of the answer of a conflict
 * @throws whatever is not an answer of ours: a fault, not a failure
 */
export function failureOf<T>(error: unknown, theirsOf: (theirs: unknown) => Theirs<T>): SaveFailure<T> {
  if (!(error instanceof ApiProblem)) throw error
  const problem = error.details
  if (problem.code === 'changedMeanwhile') return { kind: 'conflict', theirs: theirsOf(problem.theirs) }
  if (problem.status === 0) return { kind: 'unreached', problem }
  if (problem.status === 401) return { kind: 'signedOut', problem }
  return { kind: 'refused', problem }
}
