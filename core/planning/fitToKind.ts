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
 * answers does not apply where classmates do not answer. What the new kind usually asks for and the old one could not comes
 * with it. Working phases the new kind does not have give way to the one it has in their place, with their dates; those that
 * are missing follow the last, and marking follows them.
 *
 * @param nextDue when what follows a moment is usually due
 */
export function fitToKind(
  phases: readonly Phase[],
  rules: readonly ExpectationRule[],
  from: ActivityKind,
  kind: ActivityKind,
  nextDue: (after: Date) => Date,
): FittedToKind {
  const { workingPhases, expects, usualRules } = KINDS[kind]
  const working = phases.filter(p => isWorkingPhase(p.name))
  const others = phases.filter(p => !isWorkingPhase(p.name))
  const kept: Phase[] = []
  for (const [i, name] of workingPhases.entries()) {
    const same = working.find(p => p.name === name) ?? working[i]
    const before = kept.at(-1)?.endsAt
    if (same && (!before || same.endsAt > before)) kept.push({ ...same, name })
    else if (before) kept.push({ name, startsAt: before, endsAt: nextDue(before) })
  }
  const have = new Set(kept.map(p => p.name))
  const applies = (rule: ExpectationRule) => expects.includes(rule.kind)
  const due = (rule: ExpectationRule): ExpectationRule =>
    have.has(rule.due) ? rule : { ...rule, due: kept.at(-1)?.name ?? workingPhases[0]! }
  const had = new Set(rules.map(r => r.kind))
  const fresh = usualRules.filter(r => !had.has(r.kind) && !KINDS[from].expects.includes(r.kind))
  return {
    phases: [...kept, ...followed(kept, others, nextDue)],
    rules: [...rules.filter(applies).map(due), ...fresh],
    unfit: rules.filter(rule => !applies(rule)),
  }
}

/** What comes after the work, after the last of its phases. */
function followed(
  kept: readonly Phase[],
  others: readonly Phase[],
  nextDue: (after: Date) => Date,
): readonly Phase[] {
  const last = new Date(Math.max(...kept.map(p => p.endsAt.getTime())))
  return others.map(p => {
    const startsAt = p.startsAt < last ? last : p.startsAt
    return { ...p, startsAt, endsAt: p.endsAt > startsAt ? p.endsAt : nextDue(startsAt) }
  })
}
