import isEqual from 'fast-deep-equal'
import { withOneCount } from '#core/kinds/review/reviewCount'
import { ownSettings } from '#core/kinds/ownSettings'
import { isWorkingPhase } from '#core/planning/schedule'
import type { ActivityBody, ComposerView, EffectView } from '#shared/planning/composer'
import * as planningEndpoints from '#shared/planning/endpoints'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSharedEdit, type Stored } from '~/composables/shell/useSharedEdit'
import { useNotices } from '~/stores/notices'

const PAUSE_BEFORE_EFFECT = 300 // milliseconds without a change before its effect is asked for

/** How students come to see what others write: from the start, after their own is in, or from a day on. */
export type Shown = 'open' | 'own' | 'day'

export const shownOf = (body: ActivityBody): Shown => {
  if (body.hiddenUntil) return 'day'
  return body.writeFirst ? 'own' : 'open'
}
export const withShown = (body: ActivityBody, shown: Shown): Partial<ActivityBody> => ({
  writeFirst: shown === 'own',
  hiddenUntil:
    shown === 'day'
      ? (body.hiddenUntil ?? body.phases.find(p => isWorkingPhase(p.name))?.endsAt ?? null)
      : null,
})

/**
 * The plan of an activity while somebody edits it. A draft saves itself; changes to something published wait, with
 * what they would do beside them, until they are applied.
 */
export function usePlanEdit(view: () => ComposerView, onStored: (view: ComposerView) => void) {
  const api = useApi()
  const notices = useNotices()
  const params = { activityId: view().id }
  const live = computed(() => view().state === 'published')
  const notifies = ref(false)
  const toStored = (v: ComposerView): Stored<ActivityBody> => ({
    version: v.version,
    body: v.body as ActivityBody, // the same fields, without the marks of a view that is only read
    savedBy: v.savedBy,
  })
  const shared = useSharedEdit<ActivityBody>({
    stored: toStored(view()),
    auto: () => !live.value,
    draftKey: `jovrel:activity:${view().id}`,
    theirsOf: theirs => toStored(theirs as ComposerView), // what a conflict of this endpoint carries
    send: async (change, baseVersion) => {
      const saved = await api.call(planningEndpoints.changePlannedActivity, {
        params,
        body: { key: newKey(), baseVersion, change, tell: notifies.value },
      })
      onStored(saved)
      return toStored(saved)
    },
  })
  /** Changes fields; what says the same as one of them changes with it. */
  function change(part: Partial<ActivityBody>) {
    const was = shared.mine.value
    if (!part.review && !part.rules) return shared.change(part)
    const { review, rules } = withOneCount(was, { ...was, ...part })
    shared.change({
      ...part,
      ...((part.review || review.each !== was.review.each) && { review }),
      ...((part.rules || !isEqual(rules, was.rules)) && { rules }),
    })
  }
  const edit = { ...shared, change }
  // what is stored anew from outside (published, unlocked) is the new ground
  watch(view, now => {
    if (now.version !== edit.version.value && !edit.changed.value) edit.take(toStored(now))
  })

  const effect = shallowRef<EffectView | null>(null)
  const effectProblem = ref<string | null>(null)
  let asking: ReturnType<typeof setTimeout> | undefined
  watch(edit.changes, changes => {
    if (!live.value) return
    clearTimeout(asking)
    effect.value = null
    effectProblem.value = null
    if (Object.keys(changes).length === 0) return
    asking = setTimeout(async () => {
      try {
        effect.value = await api.call(planningEndpoints.readPlanEffect, { params, body: { change: changes } })
      } catch (error) {
        effectProblem.value = error instanceof Error ? error.message : String(error)
      }
    }, PAUSE_BEFORE_EFFECT)
  })
  onBeforeUnmount(() => clearTimeout(asking))

  /** Sends what waits, and says so with a way back. */
  async function apply(andNotify: boolean) {
    const was = edit.base.value
    const before = {
      // the settings of its own kind go with the kind, and come back with it
      ...('kind' in edit.changes.value && ownSettings(was.kind, was)),
      ...(Object.fromEntries(
        Object.keys(edit.changes.value).map(field => [field, was[field as keyof ActivityBody]]),
      ) as Partial<ActivityBody>), // fields of the body, some of them
    }
    notifies.value = andNotify
    await edit.save()
    notifies.value = false
    if (edit.state.value !== 'saved') return
    notices.say(andNotify ? 'Changed, and everyone who takes part is told.' : 'Changed.', {
      label: 'Undo',
      run: async () => {
        edit.change(before)
        await edit.save()
      },
    })
  }
  return {
    edit,
    live,
    effect: shallowReadonly(effect),
    effectProblem: readonly(effectProblem),
    apply,
  }
}
