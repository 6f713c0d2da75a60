<script setup lang="ts">
import PickList from '~/components/controls/PickList.vue'
import type { ComposerView } from '#shared/planning/composer'
import { leftBehind } from '#core/planning/leftBehind'
import { copyWords } from '~/composables/planning/copyWords'
import { newKey, useApi } from '~/composables/shell/useApi'
import { useSending } from '~/composables/shell/useSending'
import { useNotices } from '~/stores/notices'
import { useSeminarStore } from '~/stores/seminar'
import { useSessionStore } from '~/stores/session'
import * as planningEndpoints from '#shared/planning/endpoints'
import TextButton from '~/components/controls/TextButton.vue'

/** What is done to an activity as a whole: copied, kept as a template, locked, taken away. */
const props = defineProps<{ view: ComposerView }>()
const emit = defineEmits<{ reload: [] }>()
const api = useApi()
const notices = useNotices()
const seminar = useSeminarStore()
const session = useSessionStore()
const { attempt } = useSending()
const copying = ref(false)
const target = reactive({ seminarId: props.view.seminarId, week: null as number | null })
const own = computed(() =>
  (session.session?.seminars ?? []).filter(s => s.role === 'instructor' && !s.archived),
)
const same = computed(() => target.seminarId === props.view.seminarId)
/** What a copy into another seminar is without, before it is made. */
const without = computed(() => (same.value ? '' : copyWords(leftBehind(props.view.body))))
const copy = (asTemplate: boolean) =>
  attempt(async () => {
    const id = newKey()
    const seminarId = asTemplate ? props.view.seminarId : target.seminarId
    const { left } = await api.call(planningEndpoints.copyActivity, {
      params: { activityId: props.view.id },
      body: {
        id,
        seminarId,
        week: asTemplate || !same.value ? null : target.week,
        asTemplate,
      },
    })
    copying.value = false
    if (asTemplate) {
      notices.say('Saved as a template in the library.', {
        label: 'Open it',
        run: () => void navigateTo(`/seminars/${seminarId}/activities/${id}/plan`),
      })
      return
    }
    await navigateTo(`/seminars/${seminarId}/activities/${id}/plan`)
    notices.say(['This is the copy, a draft.', copyWords(left)].join(' ').trim())
  })
const lock = (locked: boolean) =>
  attempt(async () => {
    await api.call(planningEndpoints.lockActivity, {
      params: { activityId: props.view.id },
      body: { locked },
    })
    emit('reload')
    notices.say(locked ? 'Locked: nothing here can be changed until it is unlocked.' : 'Unlocked.', {
      label: 'Undo',
      run: () => void lock(!locked),
    })
  })
const remove = () =>
  attempt(async () => {
    const { id, seminarId, body } = props.view
    await api.call(planningEndpoints.deleteActivity, { params: { activityId: id } })
    await navigateTo(`/seminars/${seminarId}/plan`)
    notices.say(`“${body.title}” is deleted.`, {
      label: 'Undo',
      run: async () => {
        const week = 1
        await attempt(async () => {
          const back = newKey()
          await api.call(planningEndpoints.makeActivity, {
            params: { seminarId },
            body: {
              id: back,
              kind: body.kind,
              week,
              unitId: body.unitId,
              templateId: null,
            },
          })
          await api.call(planningEndpoints.changePlannedActivity, {
            params: { activityId: back },
            body: {
              key: newKey(),
              baseVersion: 1,
              change: {
                ...body,
                rules: body.rules.map(r => ({ ...r, id: newKey() })),
                prompts: body.prompts.map(p => ({ ...p, id: newKey() })),
              },
              tell: false,
            },
          })
          await navigateTo(`/seminars/${seminarId}/activities/${back}/plan`)
        })
      },
    })
  })
</script>

<template>
  <div class="whole">
    <p class="acts">
      <TextButton :aria-expanded="copying" @click="copying = !copying"> Copy it … </TextButton>
      <TextButton @click="copy(true)">Save as a template</TextButton>
      <TextButton v-if="view.locked" @click="lock(false)">Unlock the settings</TextButton>
      <TextButton v-else @click="lock(true)">Lock the settings</TextButton>
      <TextButton v-if="view.state === 'draft' && view.contributions === 0" @click="remove">
        Delete
      </TextButton>
    </p>
    <form v-if="copying" class="copy" @submit.prevent="copy(false)">
      Copy into
      <PickList v-model="target.seminarId" class="in" aria-label="Seminar">
        <option v-for="s in own" :key="s.id" :value="s.id">{{ s.title }} · {{ s.code }}</option></PickList
      ><template v-if="same"
        >,
        <PickList v-model="target.week" class="in" aria-label="Week">
          <option :value="null">the same week</option>
          <option v-for="w in seminar.shell?.weeks ?? []" :key="w.number" :value="w.number">
            {{ w.label === null ? w.title : `week ${w.label}` }}
          </option>
        </PickList></template
      ><template v-else>, the same teaching week</template>.
      <v-btn class="main" type="submit">Make the copy</v-btn>
      <span v-if="without" class="without hint" role="status">{{ without }}</span>
    </form>
  </div>
</template>

<style scoped>
.whole {
  border-top: 1px solid var(--line);
  margin-top: 8px;
  padding-top: 12px;
}
.acts {
  display: flex;
  gap: 20px;
  flex-wrap: wrap;
  font-size: 0.84375rem;
}
.copy {
  font: 400 0.9375rem/2.2 var(--read);
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
  margin-top: 6px;
}
.without {
  width: 100%;
}
</style>
