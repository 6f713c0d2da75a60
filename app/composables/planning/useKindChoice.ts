import type { ActivityKind } from '#core/kinds/kind'
import isEqual from 'fast-deep-equal'
import { ownSettings } from '#core/kinds/ownSettings'
import type { ExpectationRule } from '#core/planning/expectations/rule'
import { fitToKind } from '#core/planning/fitToKind'
import { nextUsualDue } from '#core/planning/proposeSchedule'
import type { SeminarShell } from '#shared/people/seminar'
import type { ActivityBody } from '#shared/planning/composer'
import { termOfShell, usualDueOf } from './termOfShell'
import { newKey } from '~/composables/shell/useApi'
import { useNotices } from '~/stores/notices'
import { kindInSentence } from '~/kinds/words'

/**
 * Another kind for an activity that is planned. What the new kind does not have, expectations and settings of the old one,
 * is kept aside here, so that changing back brings it back.
 */
export function useKindChoice(
  body: () => ActivityBody,
  shell: () => SeminarShell,
  change: (part: Partial<ActivityBody>) => void,
) {
  const notices = useNotices()
  const unfit = shallowRef<readonly ExpectationRule[]>([])
  const aside = new Map<ActivityKind, Partial<ActivityBody>>()

  function choose(kind: ActivityKind) {
    const was = body()
    if (kind === was.kind) return
    const phases = was.phases.map(p => ({
      name: p.name,
      startsAt: new Date(p.startsAt),
      endsAt: new Date(p.endsAt),
    }))
    const asked = [...was.rules.map(r => r.rule), ...unfit.value]
    const nextDue = (after: Date) => nextUsualDue(after, termOfShell(shell()), usualDueOf(shell()))
    const fitted = fitToKind(phases, asked, was.kind, kind, nextDue)
    unfit.value = fitted.unfit
    aside.set(was.kind, ownSettings(was.kind, was))
    change({
      kind,
      ...aside.get(kind),
      phases: fitted.phases.map(p => ({
        name: p.name,
        startsAt: p.startsAt.toISOString(),
        endsAt: p.endsAt.toISOString(),
      })),
      rules: fitted.rules.map(rule => {
        const had = was.rules.find(r => isEqual({ ...r.rule, due: rule.due }, rule))
        return { id: had?.id ?? newKey(), rule, needed: had?.needed ?? true }
      }),
    })
    if (fitted.unfit.length === 0) return
    const what = fitted.unfit.some(r => r.kind === 'replies') ? 'replies' : 'such thing'
    notices.say(
      `A ${kindInSentence(kind)} asks for no ${what}; that sentence is kept aside and comes back with the kind.`,
    )
  }
  return { unfit: shallowReadonly(unfit), choose }
}
