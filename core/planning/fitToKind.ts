import { KINDS } from '#core/kinds'
import type { ActivityKind } from '#core/kinds/kind'
import type { ExpectationRule } from './expectations/rule'
import { isWorkingPhase, type Phase } from './schedule'

export interface FittedToKind {
  readonly phases: readonly Phase[]
  readonly rules: readonly ExpectationRule[] // those that apply, in order
  readonly unfit: readonly ExpectationRule[] // those that do not: kept aside, so that changing back brings them back
}

/**
 * An activity's phases and expectations when its kind changes. Every expectation that still applies stays; one about
 * answers does not apply where classmates do not answer. Working phases the new kind does not have give way to the one it has in
 * their place, with their dates; one that is needed is added after the last.
 */
export function fitToKind(
  phases: readonly Phase[],
  rules: readonly ExpectationRule[],
  kind: ActivityKind,
): FittedToKind {
  const { workingPhases, expects } = KINDS[kind]
  const working = phases.filter(p => isWorkingPhase(p.name))
  const others = phases.filter(p => !isWorkingPhase(p.name))
  const kept = workingPhases.flatMap((name, i) => {
    const same = working.find(p => p.name === name) ?? working[i]
    return same ? [{ ...same, name }] : []
  })
  const have = new Set(kept.map(p => p.name))
  const applies = (rule: ExpectationRule) => expects.includes(rule.kind)
  const due = (rule: ExpectationRule): ExpectationRule =>
    have.has(rule.due) ? rule : { ...rule, due: kept.at(-1)?.name ?? workingPhases[0]! }
  return {
    phases: [...kept, ...others],
    rules: rules.filter(applies).map(due),
    unfit: rules.filter(rule => !applies(rule)),
  }
}
