import { inWords, plural } from '#core/language'
import type { ActivityBody, ComposerView } from '#shared/planning/composer'
import * as planningEndpoints from '#shared/planning/endpoints'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import type { SharedEdit } from '~/composables/shell/useSharedEdit'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'

/** Publishing an activity, and taking it back to a draft. */
export function usePublishing(
  view: () => ComposerView,
  edit: SharedEdit<ActivityBody>,
  people: () => number,
  onChanged: () => void,
) {
  const api = useApi()
  const notices = useNotices()
  const seminar = useSeminarStore()
  const { attempt } = useSending()
  const params = { activityId: view().id }
  const isNotified = () => `${inWords(people())} ${plural(people(), 'student')} are told`

  async function publish(opens: string, andNotify: boolean) {
    await edit.save()
    if (edit.state.value !== 'saved') return
    await attempt(async () => {
      const answer = await api.call(planningEndpoints.publishActivity, {
        params,
        body: { key: newKey(), baseVersion: edit.version.value!, opens, tell: andNotify },
      })
      onChanged()
      await seminar.load(view().seminarId)
      const published = andNotify ? `Published, and ${isNotified()}.` : 'Published.'
      notices.say(answer.state === 'published' ? published : 'Scheduled: it opens by itself.', {
        label: 'Undo',
        run: () => void unpublish(),
      })
    })
  }
  const unpublish = () =>
    attempt(async () => {
      const { version } = await api.call(planningEndpoints.readPlannedActivity, { params })
      await api.call(planningEndpoints.unpublishActivity, {
        params,
        body: { key: newKey(), baseVersion: version },
      })
      onChanged()
      await seminar.load(view().seminarId)
    })
  return { publish, unpublish }
}
