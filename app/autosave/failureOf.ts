import { ApiProblem } from '~/composables/shell/useApi'
import type { SaveFailure, Theirs } from './autosave'

/** Whether a failure is over by itself: no connection, a server that is not itself, or too much at once. */
export const isPassing = ({ status }: { readonly status: number }): boolean =>
  status === 0 || status === 429 || status >= 500

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
  if (isPassing(problem)) return { kind: 'unreached', problem }
  if (problem.status === 401) return { kind: 'signedOut', problem }
  return { kind: 'refused', problem }
}
